"""Who may do what: one answer for every actor, verb and object.

Each app registers a rule for its rows (in its `policy.py`); nothing is allowed that no rule allows. Others' rows are
not there at all (404), so that nobody learns what exists.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from datetime import datetime
from enum import StrEnum
from typing import Any, TypeVar

from django.contrib.auth.models import User
from django.db.models import Model, QuerySet
from django.utils import timezone

from studio.errors import NOT_FOUND, Refusal

Row = TypeVar("Row", bound=Model)


class Verb(StrEnum):
    """What is done to a row."""

    SEE = "see"
    CHANGE = "change"
    REMOVE = "remove"
    READ_BOOKLET = "read the booklet of"
    REPORT = "report on"


class Purpose(StrEnum):
    """What a link is for; it opens nothing else."""

    READ = "read"
    TEST = "test"
    CLIENT = "client"
    TRANSLATE = "translate"


@dataclass(frozen=True, slots=True)
class Owner:
    """A designer who is signed in."""

    user: User


@dataclass(frozen=True, slots=True)
class LinkHolder:
    """Whoever holds a link: no account, one purpose, one design, until a day."""

    link: int
    purpose: Purpose
    design: int
    expires: datetime
    revoked: bool = False


Actor = Owner | LinkHolder


@dataclass(frozen=True, slots=True)
class Yes:
    """Allowed."""

    def __bool__(self) -> bool:
        return True


@dataclass(frozen=True, slots=True)
class No:
    """Not allowed. hidden: the actor is not to know that there is such a row."""

    reason: str
    hidden: bool = False

    def __bool__(self) -> bool:
        return False


@dataclass(frozen=True, slots=True)
class Rule:
    """Who may do what with the rows of a model.

    owner: the lookup from a row to its owner. design: the lookup from a row to its design's number, '' for rows that
    belong to no design. links: the verbs that each purpose of a link allows on the rows of its design. link: the lookup
    from a row to the number of the one link that opens it, '' where every link to the design does.
    """

    owner: str
    design: str = ""
    links: Mapping[Purpose, frozenset[Verb]] = field(default_factory=dict)
    link: str = ""


_RULES: dict[type[Model], Rule] = {}


def register(model: type[Model], rule: Rule) -> None:
    """Make the rule of a model known; called when its app is ready."""
    _RULES[model] = rule


def rules() -> Mapping[type[Model], Rule]:
    """Every rule there is."""
    return _RULES


def _reached(row: Any, lookup: str) -> Any:
    for name in lookup.split("__"):
        row = getattr(row, name)
    return row


def may(actor: Actor, verb: Verb, row: Model) -> Yes | No:
    """Whether an actor may do this with a row. Owners may do everything with what is theirs."""
    rule = _RULES.get(type(row))
    if rule is None:
        return No(NOT_FOUND, hidden=True)
    if isinstance(actor, Owner):
        own = _reached(row, rule.owner).pk == actor.user.pk
        return Yes() if own else No(NOT_FOUND, hidden=True)
    if not rule.design or _reached(row, rule.design) != actor.design:
        return No(NOT_FOUND, hidden=True)
    if actor.revoked:
        return No("This link was withdrawn by whoever gave it to you.")
    if actor.expires <= timezone.now():
        return No("This link has run out: ask for a new one.")
    if rule.link and _reached(row, rule.link) != actor.link:
        return No(NOT_FOUND, hidden=True)
    if verb not in rule.links.get(actor.purpose, frozenset()):
        return No("This link is not for that.")
    return Yes()


def visible(actor: Actor, verb: Verb, model: type[Row]) -> QuerySet[Row]:
    """The rows of a model with which an actor may do this."""
    rows = model._default_manager.all()
    rule = _RULES.get(model)
    if rule is None:
        return rows.none()
    if isinstance(actor, Owner):
        return rows.filter(**{rule.owner: actor.user})
    spent = actor.revoked or actor.expires <= timezone.now()
    if spent or not rule.design or verb not in rule.links.get(actor.purpose, frozenset()):
        return rows.none()
    own = {rule.link: actor.link} if rule.link else {}
    return rows.filter(**{rule.design: actor.design}, **own)


def demand(actor: Actor, verb: Verb, row: Model) -> None:
    """Refusal unless the actor may: 404 for what she is not to know of, else 403 with the reason."""
    answer = may(actor, verb, row)
    if isinstance(answer, No):
        raise Refusal(404 if answer.hidden else 403, "not-found" if answer.hidden else "not-allowed", answer.reason)
