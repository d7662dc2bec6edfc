"""Changes of translators, by the designer and by themselves. Each is made in one transaction."""

from __future__ import annotations

import hashlib
from collections.abc import Mapping

from django.contrib.auth.models import User
from django.db import transaction

from studio.designs.models import Design
from studio.errors import Refusal
from studio.links.actions import make_link, revoke_link
from studio.policy import Actor, Owner, Purpose, Verb, demand
from studio.translating.models import TranslatedPiece, Translator

MOST_TRANSLATORS, MOST_TEXT, MOST_PIECES = 40, 5_000, 1_000
"""Translators of a design, code points of a piece in another language, and pieces that one translator keeps."""


def digest_of(source: str) -> str:
    """What tells a piece of prose from any other."""
    return hashlib.sha256(source.encode()).hexdigest()


@transaction.atomic
def invite(user: User, design: Design, language: str, name: str, days: int) -> tuple[Translator, str]:
    """A translator, and the token of her link, which is told this once and kept nowhere."""
    demand(Owner(user), Verb.CHANGE, design)
    if design.translators.count() >= MOST_TRANSLATORS:
        raise Refusal(422, "full", f"A design has at most {MOST_TRANSLATORS} translators; remove some first.")
    link, token = make_link(user, design, Purpose.TRANSLATE, days=days, note=name)
    return Translator.objects.create(design=design, link=link, language=language, name=name), token


@transaction.atomic
def remove(user: User, translator: Translator) -> None:
    """Throw away a translator with what she wrote; her link opens nothing any more. What was taken over stays."""
    demand(Owner(user), Verb.REMOVE, translator)
    revoke_link(user, translator.link)
    translator.delete()


@transaction.atomic
def write(actor: Actor, translator: Translator, texts: Mapping[str, str]) -> int:
    """Keep pieces as their translator writes them; how many are said otherwise than before. texts: by the pieces' sources; an
    empty one is none. Refusal for one that is too long, or where there are too many."""
    demand(actor, Verb.REPORT, translator)
    kept = {p.digest: p for p in TranslatedPiece.objects.select_for_update().filter(translator=translator)}
    changed = 0
    for source, said in texts.items():
        text, digest = said.strip(), digest_of(source)
        if len(text) > MOST_TEXT:
            raise Refusal(
                422, "invalid", f"A piece has up to {MOST_TEXT:,} characters: “{text[:40]}…” has {len(text):,}."
            )
        known = kept.get(digest)
        if text == (known.text if known else ""):
            continue
        changed += 1
        if not text and known:
            known.delete()
        elif known:
            known.text = text
            known.save()
        else:
            if len(kept) >= MOST_PIECES:
                raise Refusal(422, "full", f"A translator keeps up to {MOST_PIECES:,} pieces.")
            kept[digest] = TranslatedPiece.objects.create(
                translator=translator, digest=digest, source=source, text=text
            )
    return changed
