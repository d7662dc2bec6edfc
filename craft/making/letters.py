"""Letters of a test, to be sent or copied: what a tester is asked, reminded of, told and thanked for."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date


@dataclass(frozen=True, slots=True)
class Text:
    """A letter's subject and its body."""

    subject: str
    body: str


def _day(day: date | None) -> str:
    return f"{day.day} {day:%B %Y}" if day else "whenever you are done"


def invitation(designer: str, title: str, tester: str, look_at: str, until: date | None, link: str) -> Text:
    """What a tester is asked. link: to her page."""
    lines = [
        f"Dear {tester},",
        "",
        f"thank you for testing “{title}”. Your own page has the pattern, a place to tick off rounds while you work, and room "
        "for everything that was unclear; it works without a net once it was open. Nobody else has this link:",
        "",
        link,
        "",
        f"Please be done by {_day(until)}." if until else "There is no day by which you have to be done.",
    ]
    if look_at.strip():
        lines += ["", "What I would like to know most:", "", look_at.strip()]
    lines += ["", "You can see and delete everything that you tell me there, at any time.", "", designer]
    return Text(f"Testing “{title}”", "\n".join(lines))


def reminder(designer: str, title: str, tester: str, until: date | None, share: float) -> Text:
    """A reminder of the day. share: of her rounds that are done, of 1."""
    far = (
        f"Your page says that {share:.0%} of the rounds are done." if share > 0 else "Your page has not been begun yet."
    )
    lines = [
        f"Dear {tester},",
        "",
        f"the test of “{title}” goes on until {_day(until)}. {far} If you need longer, or cannot go on, tell me: that helps, too.",
        "",
        designer,
    ]
    return Text(f"“{title}”: until {_day(until)}", "\n".join(lines))


def thanks(designer: str, title: str, tester: str, changed: int) -> Text:
    """Thanks at the end. changed: how many of her remarks changed the pattern."""
    if changed:
        told = (
            f"{changed} of your remarks changed the pattern."
            if changed > 1
            else "One of your remarks changed the pattern."
        )
    else:
        told = "Your page tells what I answered to your remarks."
    lines = [f"Dear {tester},", "", f"thank you for making “{title}” so carefully. {told}", "", designer]
    return Text(f"Thank you for testing “{title}”", "\n".join(lines))


def thanked(names: list[str]) -> str:
    """The line of the booklet that thanks testers by name; '' for nobody."""
    if not names:
        return ""
    told = names[0] if len(names) == 1 else f"{', '.join(names[:-1])} and {names[-1]}"
    return f"Tested by {told.rstrip('.')}."
