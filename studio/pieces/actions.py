"""Changes of the shelf of pieces, and pieces put into designs."""

from __future__ import annotations

from dataclasses import replace

from django.contrib.auth.models import User
from django.db import transaction
from pydantic import ValidationError

from craft.design.anchors import Place
from craft.design.remix import Drawn, ShelfPiece, Slot, Use, drawn, piece_from, piece_json, put_in
from craft.design.running import run_parts, worked_parts
from studio.designs.actions import create_from_value
from studio.designs.models import Design
from studio.designs.policy import design_of
from studio.designs.reading import design_value
from studio.designs.recording import record
from studio.designs.rewriting import rewritten, versions_of
from studio.designs.texts import keep_all_typed
from studio.designs.values import permissions_value
from studio.errors import Refusal
from studio.pieces.models import Piece
from studio.pieces.policy import piece_of, visible_pieces
from studio.pieces.schemas import DrawIn, KeepPiece, PieceTerms, SourcesIn, UsePiece
from studio.pieces.values import piece_value
from studio.refusals import placed_sentence

MOST_PIECES = 500


@transaction.atomic
def keep(user: User, value: ShelfPiece) -> Piece:
    """A piece more on the shelf."""
    if Piece.objects.filter(owner=user).count() >= MOST_PIECES:
        raise Refusal(422, "full", f"The shelf holds at most {MOST_PIECES} pieces.")
    return Piece.objects.create(
        owner=user, title=value.title, slot=value.slot.value, designer=value.designer, data=piece_json(value)
    )


def keep_parts(user: User, asked: KeepPiece) -> Piece:
    """Parts of one of her designs as a piece."""
    design = piece_from(design_value(design_of(user, asked.design)), asked.parts)
    value = ShelfPiece(
        asked.title,
        design,
        asked.main,
        Slot(asked.slot),
        asked.designer,
        asked.version,
        tuple(asked.tags),
        permissions_value(asked.permissions),
        own=not asked.designer,
    )
    return keep(user, value)


@transaction.atomic
def describe(piece: Piece, asked: PieceTerms) -> Piece:
    """A kept piece under another title, slot, designer, version or other terms; its rounds stay, and so do the figures
    that it was used in."""
    if asked.own and asked.designer:
        raise Refusal(422, "invalid", "A piece of your own has no other designer.", field="designer")
    value = replace(
        piece_value(piece),
        title=asked.title,
        slot=Slot(asked.slot),
        designer=asked.designer,
        version=asked.version,
        tags=tuple(asked.tags),
        permissions=permissions_value(asked.permissions),
        own=asked.own,
    )
    piece.title, piece.slot, piece.designer = value.title, value.slot.value, value.designer
    piece.data = piece_json(value)
    piece.save(update_fields=("title", "slot", "designer", "data"))
    return piece


def remove(piece: Piece) -> None:
    """Take a piece off the shelf; designs that it was used in keep it."""
    piece.delete()


@transaction.atomic
def use(user: User, pk: int, asked: UsePiece) -> Design:
    """A design with a piece more, as one action."""
    design = design_of(user, pk, lock=True)
    piece = piece_value(piece_of(user, asked.piece))
    keep_all_typed(design)
    before = design_value(design)
    place = None
    if asked.on is not None and asked.round is not None:
        place = Place(asked.on, asked.round, asked.stitch).anchored(None, worked_parts(run_parts(before)))
    made = put_in(before, piece, Use(asked.colours, asked.copies, asked.inside_out, asked.upside_down, place))
    try:
        manifest = rewritten(design.manifest, before, made.design, versions_of(design, before, made.design))
    except ValidationError as error:
        raise Refusal(422, "invalid", f"This piece cannot be put in: {placed_sentence(error.errors()[0])}") from None
    record(design, manifest, f"Put in {piece.title}")
    return design


@transaction.atomic
def note_sources(user: User, pk: int, asked: SourcesIn) -> Design:
    """Other sources of a design, as one action."""
    design = design_of(user, pk, lock=True)
    keep_all_typed(design)
    manifest = design.manifest
    for entry in asked.sources:
        if not entry.title:
            raise Refusal(422, "invalid", "Say what it is called.", field="title")
    if manifest.sources != asked.sources:
        record(design, manifest.model_copy(update={"sources": asked.sources}), "Noted what it was made from")
    return design


def draw(user: User, asked: DrawIn) -> tuple[Drawn, list[Piece]]:
    """A figure of her pieces by lot, and the pieces that it was drawn from. Nothing is kept."""
    rows = list(visible_pieces(user).order_by("pk"))
    seeds = {Slot(slot): seed for slot, seed in asked.seeds.items()}
    places = {row.pk: at for at, row in enumerate(rows)}
    held = {Slot(slot): places.get(pk, -1) for slot, pk in asked.held.items()}
    return drawn(asked.name, [piece_value(row) for row in rows], seeds, held, misfits=asked.misfits), rows


def make_drawn(user: User, asked: DrawIn) -> Design:
    """A drawn figure as a design of its own."""
    made, _ = draw(user, asked)
    if not made.design.parts:
        raise Refusal(422, "invalid", "Nothing was drawn: there is no piece for these slots.", field="seeds")
    return create_from_value(user, made.design)
