"""Whose pieces: only her own."""

from __future__ import annotations

from django.contrib.auth.models import User
from django.db.models import QuerySet
from django.shortcuts import get_object_or_404

from studio.pieces.models import Piece
from studio.policy import Owner, Rule, Verb, register, visible

register(Piece, Rule("owner"))


def visible_pieces(user: User) -> QuerySet[Piece]:
    """Her pieces."""
    return visible(Owner(user), Verb.SEE, Piece)


def piece_of(user: User, pk: int) -> Piece:
    """One of her pieces, else 404."""
    return get_object_or_404(visible_pieces(user), pk=pk)
