"""A kept piece as the craft's value, and as the shelf shows it."""

from __future__ import annotations

from craft.design.remix import Port, ShelfPiece, credits_of, piece_of_json
from craft.design.running import run_parts
from studio.designs.entries import permissions_entry
from studio.pieces.models import Piece
from studio.pieces.schemas import PieceYarn, PortOut, ShelfPieceOut


def piece_value(piece: Piece) -> ShelfPiece:
    """The piece as a value."""
    return piece_of_json(piece.data)


def port_out(port: Port) -> PortOut:
    """A port as it goes over the wire."""
    return PortOut(
        part=port.part,
        name=port.name,
        round=port.round,
        count=port.count,
        girth_mm=port.girth_mm,
        end=port.end,
        joined=port.joined,
        flat=port.flat,
    )


def piece_out(piece: Piece) -> ShelfPieceOut:
    """A piece as the shelf shows it."""
    value = piece_value(piece)
    runs = run_parts(value.design)
    worked = [w for p in runs if (w := p.worked) is not None]
    return ShelfPieceOut(
        id=piece.pk,
        title=value.title,
        slot=value.slot.value,
        designer=value.designer,
        own=value.own,
        version=value.version,
        tags=list(value.tags),
        permissions=permissions_entry(value.permissions),
        terms=list(value.permissions.sentences),
        made_from=[source.called for source in credits_of(value.design).sources if not source.own],
        parts=[p.name for p in value.design.parts],
        main=value.main,
        keys=[p.key for p in value.design.parts],
        yarns=[PieceYarn(name=y.name, colour=y.colour) for y in value.design.yarns],
        ports=[port_out(p) for p in value.ports],
        stitches=sum(len(w.graph) * w.make for w in worked),
        rounds=sum(len(w.rounds) for w in worked),
        faults=sum(p.faults for p in runs),
    )
