"""The report: the same page for the screen and, as PDF, for the signature."""

from __future__ import annotations

import base64
import gzip
from collections.abc import Callable, Sequence
from typing import Any

import orjson
from django.conf import settings
from django.template.loader import render_to_string
from django.utils import timezone
from plumb_core.across import across
from plumb_core.checks.verdict import Verdict
from plumb_core.checks.wording import figures
from plumb_core.documents.results import Sensitivity
from plumb_core.editions import EDITIONS, Edition
from plumb_core.quantities import QUANTITIES, STAGES, Kind

from plumb_server.findings import rounds
from plumb_server.findings.models import Finding
from plumb_server.rechecks.searches import causes_of_review
from plumb_server.rechecks.services import run_recheck, sensitivity_of_review
from plumb_server.reports import pictures, plan
from plumb_server.reports.equations import number, picture, symbolic
from plumb_server.reviews.models import Review
from plumb_server.submissions.models import Submission

EVIDENCE_ROWS = 12
"""Values of a finding that the report lists; the others are counted."""

NEVER_COVERED = (
    "weak stories; torsional consequences that are not stated in the submission",
    "forces of diaphragms, collectors and connections; members and foundations",
)
"""Topics without a table in the submission; the report names them, so that nobody assumes they were checked."""

WHERE_NOTHING_IS_STATED = {
    "scaling": "scaling of the modal to the static base shear",
    "twist": "torsional irregularity and the amplification of torsion",
    "drift": "story drifts and stability coefficients",
}
"""Stages for which the submission may have no values."""


STAGE_WORDS = {
    "brief": "building data",
    "ground": "ground motion",
    "spectrum": "design spectrum",
    "weight": "seismic weight",
    "modes": "modal analysis",
    "lateral": "static lateral forces",
    "scaling": "base shear scaling",
    "twist": "torsion",
    "drift": "story drift",
}
"""Stages as a reader of the report knows them."""

DEFINITIONS = (
    ("Submitted value", "A value stated in the exhibits of the submission. In the evidence it is called “submitted”."),
    (
        "Recomputed value",
        (
            "The value that the reviewer obtains with the rules of the edition. It is given twice, carried and "
            "independent."
        ),
    ),
    ("Carried", "The rule of the edition applied to the submitted values that come before it."),
    ("Independent", "The rule of the edition applied to the inputs of the reviewer, from the first step on."),
    ("Tolerance", "The relative difference up to which a submitted and a recomputed value count as equal."),
    ("Origin", "A submitted value that differs from the carried value: the deviation begins with this value."),
    (
        "Inherited",
        "A submitted value that agrees with the carried value and differs from the independent one: "
        "it is correct in itself and deviates because of an origin before it.",
    ),
    ("Limit not met", "A value that exceeds an upper limit of the edition or is below a minimum."),
    ("Not stated", "A value that the method requires and the submission does not state (gap)."),
    ("Question", "A statement of the submission that needs an explanation before it can be judged."),
    ("Missing input", "A check that could not be made because an input of the reviewer is missing."),
    (
        "Level of independence",
        "1, consistent: submitted values are compared with each other. 2, recomputed: our rule uses inputs of the "
        "submission. 3, independent: all inputs are those of the reviewer.",
    ),
    ("Finding", "A remark to the submitter with its evidence. It is followed until it is closed."),
)
"""Terms of the report, in the order in which a reader meets them."""


def _not_covered(result: dict[str, Any]) -> list[str]:
    """Return the topics that were not rechecked: those without submitted values, and those outside the scope."""
    topics = [
        f"{words}: not stated in the submission"
        for stage, words in WHERE_NOTHING_IS_STATED.items()
        if not result["stages"][stage]
    ]
    kinds = {c["kind"] for c in result["checks"]}
    if "load" not in kinds:
        topics.append("the loads behind the seismic weight: not stated in the submission")
    if "combination" not in kinds:
        topics.append("load combinations: not stated in the submission")
    return [*topics, *NEVER_COVERED]


def _percent(deviation: float | None) -> str:
    return "" if deviation is None else f"{100 * deviation:+.1f} %".replace("-", "−")


def evidence_row(check: dict[str, Any]) -> dict[str, Any]:
    """Return a check as a line of a table."""
    theirs, sides = check["theirs"], {}
    for side in ("carried", "independent"):
        ours = check[side]
        sides[side] = "" if ours is None else figures(ours["value"])
        sides[f"{side}_deviation"] = "" if ours is None else _percent(ours["deviation"])
    written, text = (theirs or {}).get("unit", ""), (theirs or {}).get("text", "")
    unit = check["unit"].replace("*", " ")
    converted = theirs is not None and written not in ("", unit)
    source = (theirs or {}).get("source", {})
    place = " · ".join(
        str(p)
        for p in (
            source.get("file"),
            source.get("sheet") if source.get("sheet") != source.get("file") else "",
            f"row {source['row']}" if source.get("row") else "",
            source.get("column"),
        )
        if p
    )
    return sides | {
        "id": check["id"],
        "slip": check.get("slip") or "",
        "label": check["label"],
        "meaning": check["meaning"],
        # both values in one unit; what was written in another one is shown beside
        "theirs": "" if theirs is None else figures(theirs["value"]) if converted or not text else text,
        "as_written": f"{text} {written}" if converted else "",
        "unit": unit,
        "source": place,
        "verdict": check["verdict"],
        "role": check["role"],
        "level": check["level"],
        "clause": check["clause"],
        "limit": check["limit"],
        "note": check["note"],
        "rests_on": ", ".join(check["rests_on"][:6]),
    }


def _steps(check: dict[str, Any]) -> list[dict[str, Any]]:
    """Return the derivation of a check for print: computed steps with equation and value."""
    computed = [s for s in check.get("derivation", []) if s["source"] == "rule" and s["tex"]]
    values = {s["id"]: s for s in check.get("derivation", [])}
    shown = []
    for step in computed:
        value = step["value"]
        if isinstance(value, list):
            result = "per story" if QUANTITIES[step["quantity"]].kind.value == "stories" else "per point"
        else:
            result = figures(value) if isinstance(value, (int, float)) else str(value)
        used = [values[i] for i in step["inputs"] if i in values and not isinstance(values[i]["value"], list)]
        shown.append(
            {
                "id": step["id"],
                "clause": step["clause"],
                "equation": picture(symbolic(step)),
                "tex": symbolic(step),
                "with": ", ".join(f"{u['symbol']} = {_plain(u['value'])}" for u in used),
                "symbol": step["symbol"],
                "result": result,
                "unit": step["unit"].replace("*", " "),
                "governed_by": step["governed_by"] if len(step["candidates"]) > 1 else "",
            }
        )
    return shown


def _plain(value: Any) -> str:
    if isinstance(value, str):
        return value
    return number(value).removeprefix(r"\text{").removesuffix("}")


def _font(pattern: str) -> str:
    """A font of the built web application as a data address ('' where it is not built)."""
    files = sorted((settings.WEB / "assets").glob(pattern)) if settings.WEB.is_dir() else []
    return "data:font/woff2;base64," + base64.b64encode(files[0].read_bytes()).decode() if files else ""


def _declared(site: dict[str, Any], edition: Edition) -> list[tuple[str, str]]:
    """Return the corrections of the code that apply, the permissions that are used, and the study of the site."""
    lines = []
    for name, choice in edition.choices.items():
        if choice.sets:
            chosen = site.get(name, choice.standing)
            lines.append((choice.words, ", ".join(map(str, chosen)) or "none"))
        elif site.get(name):
            lines.append(("Declared", choice.words))
    if edition.permissions:
        # that none is applied is information as well
        applied = [words for name, words in edition.permissions.items() if site.get(name)]
        lines.append(("Permissions applied that lower a force", "; ".join(applied) or "none"))
    if study := site.get("site_specific"):
        parts = [f"spectrum of {len(study['T'])} points"] if study.get("T") else []
        parts += [f"{name} {_plain(study[name])} g" for name in ("S_DS", "S_D1") if study.get(name)]
        lines.append(("Site-specific study", ", ".join(parts)))
    return lines


def _basis(brief: dict[str, Any]) -> list[tuple[str, str]]:
    """Return the inputs of the brief as lines of a table."""
    lines = []
    edition_inputs = EDITIONS[brief["edition"]].inputs
    names = {name: q for name, q in QUANTITIES.items() if q.part}
    for part in ("site", "occupancy"):
        for name, value in brief.get(part, {}).items():
            if name in names and isinstance(value, int | float | str) and value is not False and name in edition_inputs:
                quantity = names[name]
                # a symbol in words would repeat the meaning
                symbol = quantity.symbol if quantity.kind is Kind.NUMBER else ""
                lines.append((f"{quantity.meaning} {symbol}".strip(), f"{_plain(value)} {quantity.unit}".strip()))
    lines += _declared(brief.get("site", {}), EDITIONS[brief["edition"]])
    edition = EDITIONS[brief["edition"]]

    def input_words(name: str, value: Any) -> str:
        if name == "lateral_system" and value in edition.systems:
            return edition.systems[value].title
        return f"{names[name].symbol} {_plain(value).replace('_', ' ')}"

    def inputs_words(inputs: dict[str, Any]) -> str:
        return ", ".join(
            input_words(k, v) for k, v in inputs.items() if k in names and isinstance(v, int | float | str)
        )

    system = brief.get("system", {})
    for direction in ("X", "Y"):
        entry = system.get(direction, {})
        lines.append((f"Lateral system {direction}", inputs_words(entry) or "not entered"))
        others = [
            f"{edition.systems[o['lateral_system']].title} from {o['from_story']} upward"
            for o in entry.get("stacked_systems") or ()
        ]
        others += [
            f"{edition.systems[o['lateral_system']].title} in the same stories"
            for o in entry.get("beside_systems") or ()
        ]
        if podium := entry.get("podium"):
            others.append(f"two-stage podium below {podium['from_story']}")
        if others:
            lines.append((f"Further systems in {direction}", "; ".join(others)))
    complete = inputs_words({k: v for k, v in system.items() if v is not False})
    if complete:
        lines.append(("Building", complete))
    if looked := system.get("irregularities"):
        states = (
            f"{name.replace('_', ' ')} {'present' if there else 'none'}" for name, there in sorted(looked.items())
        )
        lines.append(("Irregularities assessed", ", ".join(states)))
    if brief.get("comparison_editions"):
        lines.append(("Compared with", ", ".join(EDITIONS[e].title for e in brief["comparison_editions"])))
    stories = brief.get("stories", [])
    if stories:
        height = sum(s["height"] for s in stories)
        lines.append(("Stories", f"{len(stories)}, {figures(height)} m in all"))
    return lines


def _causes(review: Review, submission: Submission | None, checks: list[dict[str, Any]]) -> dict[str, Any]:
    """The causes of the deviations, each with its slips, what it explains, and where it starts."""
    found = orjson.loads(gzip.decompress(causes_of_review(review, submission)))
    labels = {c["id"]: c["label"] for c in checks}
    rows = [
        {
            "words": " and ".join(s["words"] for s in cause["slips"]),
            "codes": ", ".join(dict.fromkeys(s["code"] for s in cause["slips"] if s["code"])),
            "start": labels.get(cause["explains"][0], "") if cause["explains"] else "",
            "explains": len(cause["explains"]),
        }
        for cause in found["causes"]
    ]
    return {"rows": rows, "explained": found["explained"], "deviating": found["deviating"]}


def _effect(variant: Sensitivity) -> dict[str, Any]:
    """What a doubtful input changes, by the governing value that it moves most."""
    most = max(variant["values"], key=lambda v: abs(v["change"]), default=None)
    moved = f"{most['symbol']} {most['direction']} {_percent(most['change'])}" if most and most["change"] else "none"
    return {
        "input": variant["input"],
        "value": f"{variant['before']} to {variant['after']}",
        "moved": moved,
        "flips": len(variant["flips"]),
    }


REQUIREMENT_STATES = {"shown": "shown", "missing": "missing", "not_applicable": "not applicable", "open": "open"}


Progress = Callable[[float], None]
"""Called with the share of the work that is done."""


def unseen(share: float) -> None:
    """Nobody waits for it."""


def context(
    review: Review, sections: Sequence[str], progress: Progress = unseen, *, open_only: bool = False
) -> dict[str, Any]:
    """The content of a report, of its sections only what they show.

    open_only : the findings that wait for an answer, in place of all
    """
    submission = review.submissions.latest_with_values()
    brief = review.current_brief().document
    edition = EDITIONS[brief["edition"]]
    recheck = run_recheck(review, submission)
    result = recheck.sheet
    progress(0.2)
    waiting = (Finding.Status.ISSUED, Finding.Status.ANSWERED)
    findings = [
        f
        for f in review.findings.select_related("submission").prefetch_related("further", "thread__author")
        if (f.status in waiting if open_only else f.status != Finding.Status.WITHDRAWN)
    ]
    filed = {i for f in findings for i in f.all_checks}
    checks = [evidence_row(c) for c in result["checks"]]
    by_stage: list[dict[str, Any]] = []
    for stage in STAGES:
        of_stage = [c for c in result["checks"] if c["stage"] == stage]
        if of_stage:
            counts = {str(verdict): sum(1 for c in of_stage if c["verdict"] == verdict) for verdict in Verdict}
            by_stage.append({"stage": STAGE_WORDS[stage].capitalize(), "total": len(of_stage), **counts})
    content = {
        "review": review,
        "edition": edition,
        "submission": submission,
        "exhibits": submission.exhibits.all() if submission else [],
        "team": review.team.select_related("user").filter(role__in=["lead", "reviewer"]),
        "now": timezone.now(),
        "engine": result["engine"],
        "hash": recheck.input_hash,
        "counts": result["counts"],
        "coverage": result["coverage"],
        "origins": len(result["origins"]),
        "inherited": sum(1 for c in result["checks"] if c["role"] == "inherited"),
        "basis": _basis(brief),
        "notes": result["notes"],
        "findings": _findings(findings),
        "stages": by_stage,
        "scope": [s["stage"].lower() for s in by_stage if s["total"] > s["gap"] + s["open"]],
        "not_submitted": [s["stage"].lower() for s in by_stage if s["total"] <= s["gap"] + s["open"]],
        "definitions": DEFINITIONS,
        "unfiled": [c for c in checks if c["role"] == "origin" and c["id"] not in filed],
        "gaps": [c for c in checks if c["verdict"] == "gap"],
        "open": [c for c in checks if c["verdict"] == "open"],
        "questions": [c for c in checks if c["verdict"] == "question"],
        "requirements": [r | {"state": REQUIREMENT_STATES[r["status"]]} for r in result["requirements"]],
        "set_aside": [c for c in checks if "; set aside for this review: " in c["note"]],
        "not_covered": _not_covered(result),
        "assumed": [_assumed(f) for f in result["facts"] if f["source"] == "assumed"],
        "sections": plan.shown(sections, edition.title),
        "number": {section: i for i, section in enumerate(sections, 1)},
        "letterhead": plan.letterhead(),
        "sans": _font("archivo-latin-wght-normal*.woff2"),
        "serif": _font("source-serif-4-latin-400-italic*.woff2"),
    }
    # what takes its time is found for the sections that are there
    further: dict[str, Callable[[], dict[str, Any]]] = {
        "pictures": lambda: {
            "pictures": [_drawn(p) for p in (pictures.plumb_line(result["checks"]), pictures.spectrum(result)) if p],
            "logs": [_drawn(p) for p in pictures.story_logs(result)],
        },
        "causes": lambda: {"causes": _causes(review, submission, checks)},
        "sensitivity": lambda: _sensitivity(review, submission),
        "editions": lambda: {"across": _side_by_side(review)},
        "history": lambda: _history(review, findings),
    }
    for i, section in enumerate(sections, 1):
        if section in further:
            content |= further[section]()
        progress(0.2 + 0.4 * i / len(sections))
    return content


def _findings(findings: Sequence[Finding]) -> list[dict[str, Any]]:
    """The findings with their evidence; a step of a derivation is printed once, and named where it comes again."""
    made = [_finding(f) for f in findings]
    printed_in: dict[tuple[str, str, str], int] = {}
    for each in made:
        number = each["finding"].number
        for step in each["steps"]:
            first = printed_in.setdefault((step["id"], step["result"], step["with"]), number)
            step["again"] = first if first != number else None
    return made


def _finding(finding: Finding) -> dict[str, Any]:
    evidence = [*finding.evidence, *(link.evidence for link in finding.further.all())]
    return {
        "finding": finding,
        "rows": [evidence_row(c) for c in evidence[:EVIDENCE_ROWS]],
        "more": max(0, len(evidence) - EVIDENCE_ROWS),
        "steps": _steps(evidence[0]) if evidence else [],
        "thread": finding.thread.all(),
    }


def _drawn(drawing: pictures.Picture) -> dict[str, Any]:
    address = "data:image/svg+xml;base64," + base64.b64encode(drawing.svg.encode()).decode()
    return {"caption": drawing.caption, "address": address, "drawing": drawing}


def _sensitivity(review: Review, submission: Submission | None) -> dict[str, Any]:
    variants = sensitivity_of_review(review, submission)
    effects = pictures.sensitivity([dict(v) for v in variants])
    return {"sensitivity": [_effect(s) for s in variants], "effects": effects and _drawn(effects)}


def _assumed(fact: dict[str, Any]) -> dict[str, Any]:
    value = fact["value"]
    if isinstance(value, bool):
        words = "yes" if value else "no"
    elif isinstance(value, int | float):
        words = f"{figures(value)} {fact['unit'].replace('*', ' ')}".strip()
    else:
        words = "by story" if isinstance(value, list) else str(value)
    return {
        "meaning": fact["meaning"],
        "direction": fact["direction"] or "",
        "value": f"{words}{'; ' + fact['where'] if fact['where'] else ''}",
        "clause": fact["clause"],
    }


def _side_by_side(review: Review) -> dict[str, Any]:
    """The key values of the review's editions, a column for each."""
    found = across(review.read_brief())
    if len(found["editions"]) < 2:
        return {"editions": [], "rows": []}

    def words(cell: dict[str, Any]) -> str:
        parts = []
        for place in ("both", "X", "Y"):
            value = cell.get(place)
            if value and value["value"] is not None:
                text = figures(value["value"]) if isinstance(value["value"], int | float) else str(value["value"])
                parts.append(f"{'' if place == 'both' else place + ' '}{text} {value['unit']}".strip())
        return ", ".join(parts) or "–"

    rows = [{"name": r["label"], "values": [words(dict(c)) for c in r["cells"]]} for r in found["rows"]]
    return {"editions": [e["short"] for e in found["editions"]], "rows": rows}


STATE_WORDS = {"differs": "differs", "breaches": "limit not met", "gap": "not stated", "agrees": "agrees"}


def _history(review: Review, findings: Sequence[Finding]) -> dict[str, Any]:
    """Of each finding, how the worst of its checks stood in each submission."""
    by_number = {f.number: f for f in findings}
    found = [h for h in rounds.histories(review) if h["number"] in by_number]
    labels = [m["submission"] for m in found[0]["marks"]] if found else []
    rows = [
        {
            "number": h["number"],
            "title": by_number[h["number"]].title,
            "status": by_number[h["number"]].status,
            "marks": [STATE_WORDS.get(m["verdict"] or "", m["verdict"] or "not stated") for m in h["marks"]],
        }
        for h in found
    ]
    return {"history": rows, "history_of": labels}


def page(review: Review, seen: str = "", *, progress: Progress = unseen, signers: Sequence[dict[str, Any]] = ()) -> str:
    """The report as HTML.

    seen : names what is shown, for the signature of it
    signers : who signs it, with words, name, firm and moment
    """
    content = context(review, plan.sections_of(review), progress)
    return render_to_string("reports/report.html", content | {"seen": seen, "signers": signers})


def letter(review: Review, progress: Progress = unseen) -> str:
    """A letter of the open findings as HTML."""
    return render_to_string("reports/letter.html", context(review, (), progress, open_only=True))


def printed(html: str) -> bytes:
    """A page as PDF/A-2a: with its structure and the meaning of its characters."""
    # imported here: it loads the text-layout libraries, which only this needs
    from weasyprint import HTML

    return bytes(HTML(string=html).write_pdf(pdf_variant="pdf/a-2a"))
