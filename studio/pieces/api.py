"""Routes of the shelf of pieces."""

from __future__ import annotations

from django.http import HttpRequest, HttpResponse
from ninja import File, Router, Status
from ninja.files import UploadedFile

from craft.design.intake import design_in_file
from craft.design.permissions import NO_ADVICE
from craft.design.remix import credits_of, piece_written, ports_along, read_piece, whole_piece
from craft.design.running import run_parts, worked_parts
from craft.design.stored import MOST_JSON
from craft.errors import CraftError
from studio.bench.portraits import painting, pictured
from studio.bench.scene_schemas import SettlingOut
from studio.designs.policy import design_of
from studio.designs.reading import design_value
from studio.designs.schemas import DesignOut
from studio.designs.shown import shown
from studio.guard import designer
from studio.pieces import actions
from studio.pieces.policy import piece_of, visible_pieces
from studio.pieces.schemas import (
    CreditRow,
    CreditsOut,
    DrawIn,
    DrawnOut,
    KeepPiece,
    LotOut,
    PieceTerms,
    PortOut,
    ShelfPieceOut,
    SourcesIn,
    UsePiece,
)
from studio.pieces.values import piece_out, piece_value, port_out
from studio.sent import sent

router = Router(tags=["pieces"])
in_designs = Router(tags=["pieces"])


@router.get("", response=list[ShelfPieceOut])
def read_pieces(request: HttpRequest) -> list[ShelfPieceOut]:
    """All pieces, by title."""
    return [piece_out(p) for p in visible_pieces(designer(request))]


@router.post("", response={201: ShelfPieceOut})
def keep_piece(request: HttpRequest, payload: KeepPiece) -> Status[ShelfPieceOut]:
    """Keep parts of a design as a piece."""
    return Status(201, piece_out(actions.keep_parts(designer(request), payload)))


@router.post("/from-file", response={201: ShelfPieceOut})
def piece_from_file(request: HttpRequest, file: File[UploadedFile]) -> Status[ShelfPieceOut]:
    """A piece from a piece's file, a design's file, or a pattern written in any manner; not her own until she says so."""
    raw = file.read(MOST_JSON * 4 + 1)
    name = file.name or "piece"
    text = raw.decode("utf-8", "replace")
    try:
        value = read_piece(text) if text.lstrip()[:1] == "{" else whole_piece(design_in_file(name, raw))
    except CraftError as error:
        raise CraftError(error.message, field="file") from None
    return Status(201, piece_out(actions.keep(designer(request), value)))


@router.post("/draw", response=DrawnOut)
def draw(request: HttpRequest, payload: DrawIn) -> DrawnOut:
    """Draw a figure of pieces by lot; nothing is kept."""
    user = designer(request)
    made, rows = actions.draw(user, payload)
    worked = worked_parts(run_parts(made.design))
    found = pictured(user, made.design, payload.name) if worked else None
    lots = [
        LotOut(
            slot=lot.slot.value,
            piece=None if lot.at is None else rows[lot.at].pk,
            title="" if lot.at is None else rows[lot.at].title,
            designer="" if lot.at is None else rows[lot.at].designer,
            among=lot.among,
            misfit=lot.misfit,
        )
        for lot in made.lots
    ]
    return DrawnOut(
        lots=lots,
        picture=found.url if found else "",
        whole=found is not None and found.whole,
        told=list(made.told),
        blocked=list(credits_of(made.design).blocked),
        stitches=sum(len(w.graph) * w.make for w in worked.values()),
    )


@router.post("/draw/settle", response=SettlingOut)
def settle_drawn(request: HttpRequest, payload: DrawIn) -> SettlingOut:
    """Have every part of a drawn figure settled that is not yet, for its picture; how far that is."""
    user = designer(request)
    made, _ = actions.draw(user, payload)
    return painting(user, made.design)


@router.post("/draw/make", response={201: DesignOut})
def make_drawn(request: HttpRequest, payload: DrawIn) -> Status[DesignOut]:
    """Make a drawn figure a design."""
    return Status(201, shown(actions.make_drawn(designer(request), payload)))


@router.get("/{int:piece_id}/file", response=None)
def read_piece_file(request: HttpRequest, piece_id: int) -> HttpResponse:
    """A piece's file, with its terms."""
    piece = piece_of(designer(request), piece_id)
    return sent(piece_written(piece_value(piece)), "application/json", f"piece-{piece.pk}.json")


@router.get("/{int:piece_id}/picture", response=None)
def read_piece_picture(request: HttpRequest, piece_id: int) -> HttpResponse:
    """A piece as a picture: painted, PNG, once it is settled, else drawn, SVG; kept by the browser only when painted."""
    user = designer(request)
    value = piece_value(piece_of(user, piece_id))
    found = pictured(user, value.design, value.title)
    kept = found.whole and "settled" in request.GET
    return HttpResponse(
        found.content,
        content_type=found.kind,
        headers={"Cache-Control": "private, max-age=86400" if kept else "no-store"},
    )


@router.post("/{int:piece_id}/settle", response=SettlingOut)
def settle_piece(request: HttpRequest, piece_id: int) -> SettlingOut:
    """Have every part of a piece settled that is not yet, for its picture; how far that is."""
    user = designer(request)
    return painting(user, piece_value(piece_of(user, piece_id)).design)


@router.get("/{int:piece_id}/ports/{key}", response=list[PortOut])
def read_piece_ports(request: HttpRequest, piece_id: int, key: str) -> list[PortOut]:
    """Where one of a piece's parts can be gone on from: after every round of its first tube."""
    return [port_out(p) for p in ports_along(piece_value(piece_of(designer(request), piece_id)).design, key)]


@router.put("/{int:piece_id}", response=ShelfPieceOut)
def describe_piece(request: HttpRequest, piece_id: int, payload: PieceTerms) -> ShelfPieceOut:
    """Say otherwise whose a piece is, where it belongs and on what terms."""
    return piece_out(actions.describe(piece_of(designer(request), piece_id), payload))


@router.delete("/{int:piece_id}", response={204: None})
def remove_piece(request: HttpRequest, piece_id: int) -> Status[None]:
    """Take a piece off the shelf."""
    actions.remove(piece_of(designer(request), piece_id))
    return Status(204, None)


@in_designs.post("/{int:design_id}/pieces", response={201: DesignOut})
def use_piece(request: HttpRequest, design_id: int, payload: UsePiece) -> Status[DesignOut]:
    """Put a piece into a design."""
    return Status(201, shown(actions.use(designer(request), design_id, payload)))


@in_designs.put("/{int:design_id}/credits", response=DesignOut)
def note_sources(request: HttpRequest, design_id: int, payload: SourcesIn) -> DesignOut:
    """Note what a design was made from."""
    return shown(actions.note_sources(designer(request), design_id, payload))


@in_designs.get("/{int:design_id}/credits", response=CreditsOut)
def read_credits(request: HttpRequest, design_id: int) -> CreditsOut:
    """What a design was made from, and what of the terms does not go together."""
    design = design_of(designer(request), design_id)
    found = credits_of(design_value(design))
    noted = [(n.title, n.designer, n.version) for n in design.manifest.sources]
    rows = [
        CreditRow(
            noted=noted.index(key) if (key := (s.title, s.designer, s.version)) in noted else None,
            called=s.called,
            parts=list(s.parts),
            terms=list(s.permissions.sentences if s.permissions else filter(None, (s.terms,))),
            own=s.own,
        )
        for s in found.sources
    ]
    return CreditsOut(
        sources=rows,
        noted=design.manifest.sources,
        conflicts=list(found.conflicts),
        blocked=list(found.blocked),
        private=list(found.private),
        advice=NO_ADVICE,
    )
