"""Tests as they go over the wire: who is where, what they say, and what is left open."""

from __future__ import annotations

import statistics
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import asdict
from typing import Literal
from uuid import UUID

from django.contrib.auth.models import User
from django.utils import timezone

from craft.design.design import Posture
from craft.figure.placement import balance
from craft.making import COLUMNS, LEAST_MAKINGS, Group, Pair, Progress, grouped, heat, learned, left_open
from craft.making.happenings import Pictured
from craft.making.letters import Text, reminder, thanks
from studio.accounts.policy import own_profile
from studio.bench.scenes import staged_value
from studio.booklets.proofs import proof
from studio.booklets.schemas import FindingOut
from studio.designs.models import Design
from studio.designs.reading import design_value
from studio.making.actions import holds
from studio.making.editions import sheet_of
from studio.making.models import LARGE
from studio.making.schemas import AnswerOut
from studio.making.shown import Read, read, summary
from studio.policy import Verb, may
from studio.proving.call_schemas import (
    AnswerName,
    ByWeight,
    CallOut,
    GroupOut,
    HeatOut,
    LetterText,
    TesterShown,
    TestPicture,
    Tests,
    WrittenAs,
)
from studio.proving.models import AnswerState, RemarkAnswer, TestCall, Tester


def tests_shown(user: User, design: Design) -> Tests:
    """All tests of a design, and what still blocks its release."""
    calls = list(design.test_calls.select_related("edition").defer(*LARGE))
    makings = {c.pk: _read(c) for c in calls}
    answers = _answers(design)
    return Tests(
        calls=[_call(user, design, c, makings[c.pk], answers) for c in calls],
        open=[*proof(user, design), *_stands(user, design), *_left(design, calls, makings, answers)],
        columns=list(COLUMNS),
    )


ANSWERS: dict[AnswerState, AnswerName] = {
    AnswerState.CHANGED: "changed",
    AnswerState.STAYS: "stays",
    AnswerState.OPEN: "open",
}

Reads = list[tuple[Tester, Read]]
Answers = dict[str, AnswerOut]


def _read(call: TestCall) -> Reads:
    large = [f"making__{name}" for name in LARGE]
    rows = (
        call.testers.select_related("making__edition", "making__link")
        .prefetch_related("making__decisions")
        .defer(*large)
    )
    return [(t, read(t.making)) for t in rows if t.making is not None]


def _answers(design: Design) -> Answers:
    rows = RemarkAnswer.objects.filter(event__making__design=design).select_related("event")
    return {str(a.event.uuid): answer_shown(a) for a in rows}


def answer_shown(row: RemarkAnswer) -> AnswerOut:
    """An answer as its tester reads it."""
    return AnswerOut(event=row.event.uuid, state=ANSWERS[AnswerState(row.state)], text=row.text, version=row.version)


def _groups(call: TestCall, reads: Reads) -> tuple[Group, ...]:
    return grouped(sheet_of(call.edition), [(t.name, r.progress) for t, r in reads])


def _call(user: User, design: Design, call: TestCall, reads: Reads, answers: Answers) -> CallOut:
    sheet = sheet_of(call.edition)
    groups = _groups(call, reads)
    by_tester = {t.pk: r for t, r in reads}
    studio = own_profile(user).studio
    today = timezone.localdate()
    return CallOut(
        id=call.pk,
        title=call.title,
        edition=call.edition.title,
        look_at=call.look_at,
        wanted=call.wanted,
        opens=call.opens,
        closes=call.closes,
        days_left=(call.closes - today).days if call.closes else None,
        testers=[_tester(design, call, t, by_tester.get(t.pk), answers, studio) for t in call.testers.all()],
        groups=[_group(design, g, answers, reads) for g in groups],
        heat=[
            HeatOut(
                part=p.key,
                name=p.name,
                fill=p.fill,
                counts=[r.count for r in p.rungs],
                labels=[r.label for r in p.rungs],
                heat=list(heat(groups, p.key, len(p.rungs))),
            )
            for p in sheet.parts
        ],
        by_weight=list(_by_weight([p for _, r in reads for p in r.pairs])),
    )


def _group(design: Design, group: Group, answers: Answers, reads: Reads) -> GroupOut:
    told = [answers[s.event] for s in group.said if s.event in answers]
    return GroupOut(
        **asdict(group),
        key=group.key,
        asks=group.asks,
        testers=group.testers,
        answers=told,
        writes=list(_writes(design, group, reads)),
    )


def _writes(design: Design, group: Group, reads: Reads) -> Iterator[WrittenAs]:
    """What of a group the rounds may say instead: what several testers did alike is one way."""
    events = {said.event for said in group.said}
    done_here = [(one, d) for _, one in reads for d in one.deviations if not events.isdisjoint(d.events)]
    written = {(one.making.pk, d.key) for _, one in reads for d in one.making.decisions.all() if holds(design, d)}
    told = {done.told for one, done in done_here if (one.making.pk, done.key) in written}
    for one, done in done_here:
        if done.told not in told:
            told.add(done.told)
            yield WrittenAs(making=one.making.pk, key=done.key, told=done.told)


def _by_weight(pairs: Iterable[Pair]) -> Iterator[ByWeight]:
    found: dict[tuple[int | None, str], list[Pair]] = {}
    for pair in pairs:
        if not pair.odd:
            found.setdefault((pair.weight, pair.quantity.value), []).append(pair)
    for (weight, quantity), rows in sorted(found.items(), key=lambda r: (r[0][0] is None, r[0])):
        ratios = [p.ratio for p in rows]
        makers = len({p.maker for p in rows})
        middle = statistics.median(ratios) if makers >= LEAST_MAKINGS else None
        yield ByWeight(weight=weight, quantity=quantity, makers=makers, ratio=middle, ratios=ratios)


def _tester(
    design: Design, call: TestCall, tester: Tester, one: Read | None, answers: Answers, studio: str
) -> TesterShown:
    progress = one.progress if one else None
    report = progress.report if progress else None
    told = summary(design, one) if one else None
    holds, why = _link(tester)
    share = told.done / told.stitches if told and told.stitches else 0.0
    done = progress is not None and progress.finished
    return TesterShown(
        id=tester.pk,
        making=tester.making_id,
        name=tester.name,
        mail=tester.mail,
        state="done" if done else "making" if progress and progress.events else "asked",
        link=holds,
        why=why,
        share=share,
        at=told.at if told else "",
        last=told.last if told else None,
        minutes=(report.minutes if report and report.minutes else progress.minutes) if progress else 0.0,
        yarn=report.yarn if report else tester.yarn,
        weight=report.weight if report else None,
        hook_mm=(report.hook_mm or progress.hook_mm if report else progress.hook_mm) if progress else None,
        gauge=f"{report.across:g} × {report.up:g} to 10 cm" if report and report.across and report.up else "",
        size=report.size if report else "",
        words=report.text if report else tester.remarks,
        remarks=len(progress.remarks) + len(one.deviations) if progress and one else 0,
        consents=report.named if report else "",
        pictures=list(_pictures(tester, progress)) if progress else [],
        letter=_letter(call, tester, progress, answers, studio, share),
    )


def _link(tester: Tester) -> tuple[bool, str]:
    making = tester.making
    if making is None or making.link is None:
        return False, "on paper"
    answer = may(making.link.holder, Verb.REPORT, making)
    return bool(answer), "" if answer else "withdrawn" if making.link.revoked else "run out"


def _pictures(tester: Tester, progress: Progress) -> Iterator[TestPicture]:
    there = set(tester.making.pictures.values_list("pk", flat=True)) if tester.making else set()
    for told in progress.pictures:
        what = told.event.what
        assert isinstance(what, Pictured)
        if any(str(pk) == what.picture for pk in there) and tester.making_id:
            agreed = progress.report is not None and progress.report.pictures
            yield TestPicture(making=tester.making_id, picture=UUID(what.picture), text=what.text, shown=agreed)


def _letter(
    call: TestCall, tester: Tester, progress: Progress | None, answers: Answers, studio: str, share: float
) -> LetterText:
    title = call.design.manifest.name
    if progress is not None and progress.finished:
        own = [t.event.id for t in (*progress.remarks, *progress.otherwise)]
        changed = sum(answers[i].state == "changed" for i in own if i in answers)
        return letter_shown(thanks(studio, title, tester.name, changed))
    return letter_shown(reminder(studio, title, tester.name, call.closes, share))


def letter_shown(text: Text) -> LetterText:
    """A letter's text."""
    return LetterText(subject=text.subject, body=text.body)


def left_by_testing(user: User, design: Design) -> list[FindingOut]:
    """What testing leaves open before a release, and how the figure stands."""
    calls = list(design.test_calls.select_related("edition").defer(*LARGE))
    return [*_stands(user, design), *_left(design, calls, {c.pk: _read(c) for c in calls}, _answers(design))]


def _stands(user: User, design: Design) -> Iterator[FindingOut]:
    """A figure that stands, and tips. Said once all of it is settled and joined."""
    found = staged_value(user, design_value(design), ask=False).assembled
    standing = found.design.posture is Posture.STANDING and found.whole and found.joined
    weighed = balance(found.surfaces, found.placed, found.weighted) if standing else None
    if weighed is not None and weighed.verdict == "tips":
        yield _finding("balance", weighed.words, "assembly", blocks=True)


def _left(
    design: Design, calls: Sequence[TestCall], makings: dict[int, Reads], answers: Answers
) -> Iterator[FindingOut]:
    tested = {
        t.making.edition.size_name or "first"
        for reads in makings.values()
        for t, r in reads
        if r.progress.finished and t.making
    }
    sizes = [s.name for s in design.manifest.sizes.sizes]
    pairs = [p for reads in makings.values() for _, r in reads for p in r.pairs]
    for at, call in enumerate(calls):
        groups = _groups(call, makings[call.pk])
        answered = {g.key: sum(s.event in answers for s in g.said) for g in groups}
        offered = ["first", *sizes] if sizes and at == 0 else []
        measured = learned(pairs) if at == 0 else ()
        for one in left_open(sheet_of(call.edition), groups, answered, offered, list(tested), measured):
            yield _finding(
                one.code, one.told, "proving", blocks=one.blocks, part=one.part or None, round_=one.round or None
            )


def _finding(
    code: str,
    text: str,
    stop: Literal["assembly", "proving"],
    *,
    blocks: bool,
    part: str | None = None,
    round_: int | None = None,
) -> FindingOut:
    return FindingOut(code=code, blocks=blocks, text=text, stop=stop, part=part, round=round_, step=None)
