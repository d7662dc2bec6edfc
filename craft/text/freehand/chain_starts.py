"""Chains that begin a joined round and stand for its first stitch, and the slip stitch into them that closes it."""

from __future__ import annotations

import re

_CHAIN = (
    r"(?:ch(?:ain)?s?|lm|luftmaschen?|wende-?lm|ml|mailles?\s+en\s+l'air|chaînettes?|cad(?:enas?|enetas?)?|cat(?:enell[ae])?"
    r"|l|lossen?|keerlossen?)(?![^\W\d_])\.?"
)
STANDS_FOR = re.compile(rf"(?i)(\b{_CHAIN}(?:\s?\d)?)\s*[(\[]\s*=\s*(?=1\b|the|die|a\b|une?\b)")
"""'3 ml (= 1 br)': a count to look at, and no count of the round."""

_SLIP = (
    r"(?:sl\.?\s?st|slst|ss|slip\s?stitch|km|kettmaschen?|mc|m\.c|maille\s+coulée|pr|punto\s+raso|pd|punto\s+deslizado"
    r"|mbss|m\.\s?bss|maglia\s+bassissima|hv|halve\s+vaste)(?![^\W\d_])\.?"
)
COUNTS_AS = (
    r"counts?|counting|stands?\s+for|zähl(?:t|en)|gilt|gelten|ersetz(?:t|en)|compten?t?|rempla(?:ce|cent)|équiva(?:ut|lent)"
    r"|cuentan?|equivalen?|sustituyen?|contano?|val(?:e|gono)|sostituisc(?:e|ono)|tel(?:t|len)|vervang(?:t|en)|(?:is|are)\s+(?=the\s)"
)
"""Words for what a stitch counts as, 'counts', 'zählt', in every language."""
_NOT = r"does\s?n[o'’]?t|do\s?n[o'’]?t|does\s+not|do\s+not|never|ne(?=\s+\w+\s+pas)|no(?=\s+cuenta)|non"
_COUNTS = re.compile(
    r"(?i)\s*(?:at\s+(?:the\s+)?(?:start|beginning)\s*)?(?:,\s*(?:which\s+|die\s+|qui\s+|que\s+|che\s+|dat\s+)?|[(\[]\s*(?:it\s+|this\s+)?)?"
    rf"(?:(?P<no>{_NOT})\s+)?(?:(?:{COUNTS_AS})\b(?P<nicht>\s+(?:nicht|niet|pas)\b)?|=\s*(?=\d\s*[^\W\d_]|the\b|die\b))[^()\[\],;.]*"
    r"(?:(?<=\d)\.[^()\[\],;.]*)?(?:,\s*(?:here|now|hier|auch|from)\b[^()\[\],;.]*)?[)\]]?"
)
_TO = r"(?:to|into|in|on|dans|en|sur|nella|nell'|sulla|auf|op)\s*(?:the\s+|die\s+|der\s+|la\s+|l'|el\s+|de\s+|het\s+)?"
_NTH = (
    r"(?:(?:top|first|last|second|third|fourth|dritte[rn]?|zweite[rn]?|oberste[rn]?|letzte[rn]?|première|dernière|deuxième"
    r"|troisième|segunda|tercera|última|seconda|terza|ultima|tweede|derde|bovenste|laatste|\d\s*(?:st|nd|rd|th|\.|e|ème|ª|a|°)?)\s*)"
)
_OF = r"(?:(?:of|from|der|von|de|du|des|della|di|van)\s+(?:the\s+|den\s+|la\s+|las\s+|les\s+|de\s+|die\s+)?)"
_FIRST = r"(?:(?:beginning|beg|starting|start|turning|initial|first|anfangs-?|du\s+début|inicial|iniziale)\s*-?\s*)"
_CLOSES = re.compile(
    r"(?i)(?:(?:join|close|fasten|schließen|fermer|cerrar|chiudere|sluit(?:en)?)\s+)?(?:(?:with|using|mit|avec|par|con|met)\s+)?"
    rf"(?:an?\s+|1\s+|une?\s+|eine[rmn]?\s+|una?\s+|een\s+)?{_SLIP}\s+{_TO}{_NTH}?{_OF}?{_FIRST}?(?:{_NTH}\s*)?(?:-\s*)?{_CHAIN}"
    rf"(?:[\s-]*\d)?(?:\s+{_OF}{_FIRST}?(?:\d\s*-?\s*)?{_CHAIN}(?:[\s-]*\d)?)?(?:\s+{_FIRST})?"
    r"(?:\s+(?:schließen|to\s+(?:join|close)|pour\s+fermer|para\s+cerrar|per\s+chiudere|sluiten))?(?![^\W_])"
    r"(?!\s+(?:from|ab|von|à\s+partir|desde|dall|da|vanaf)(?![^\W_]))"
)


def counts_at(text: str, at: int) -> tuple[bool, int] | None:
    """Whether the chain that ends there is said to count as a stitch, and where that is said to its end; None when it
    is not said."""
    m = _COUNTS.match(text, at)
    if m is None:
        return None
    return m["no"] is None and m["nicht"] is None, m.end()


def closes_at(text: str, at: int) -> int | None:
    """Where a slip stitch into the chain that began the round ends, when one begins there: 'sl st to top of 3 ch'."""
    m = _CLOSES.match(text, at)
    return None if m is None else m.end()
