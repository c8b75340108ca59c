"""Checks of submitted mode tables: with themselves, with the code's target, and with the reviewer's own model."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field
from typing import Any, Literal

from plumb_core import DIRECTIONS
from plumb_core.answers.modal import compared
from plumb_core.checks.check import Check
from plumb_core.checks.compare import compare, half_unit
from plumb_core.documents.model_requests import ShapeRow, SubmittedModePart
from plumb_core.documents.submission import Claim, Source
from plumb_core.quantities import QUANTITIES, Kind
from plumb_core.rules import Key

QUANTITY_KINDS = (Kind.MODES, Kind.SHAPES)
SHARE_FLOOR = 0.03
"""Difference of shares of the mass that a model of the reviewer's own may have."""
SWAPPED = "axes_swapped"
Alternative = Callable[[str, float, list[float]], str]
_AXES: tuple[tuple[Literal["X", "Y", "RZ"], str, Literal["X", "Y"] | None], ...] = (
    ("X", "mass_ratio", "X"), ("Y", "mass_ratio", "Y"), ("RZ", "mass_ratio_RZ", None),
)  # fmt: skip


@dataclass
class ModeTable:
    """Claims about modes: by (quantity, direction) and mode, and shapes by mode and story."""

    values: dict[Key, dict[int, Claim]] = field(default_factory=dict)
    shapes: dict[int, dict[str, dict[str, float]]] = field(default_factory=dict)

    def add(self, claim: Claim) -> None:
        mode = claim.point or 0
        if QUANTITIES[claim.quantity].kind is Kind.MODES:
            self.values.setdefault(Key(claim.quantity, claim.direction), {})[mode] = claim
        else:
            axis = claim.direction or "RZ"
            self.shapes.setdefault(mode, {}).setdefault(claim.story or "", {})[axis] = float(claim.value)

    @property
    def modes(self) -> list[int]:
        return sorted({m for by_mode in self.values.values() for m in by_mode} | set(self.shapes))

    def of(self, quantity: str, direction: str | None, mode: int) -> Claim | None:
        return self.values.get(Key(quantity, direction), {}).get(mode)

    def period(self, mode: int) -> float | None:
        T, f = self.of("T_mode", None, mode), self.of("f_mode", None, mode)
        if T is not None and float(T.value) > 0:
            return float(T.value)
        return 1.0 / float(f.value) if f is not None and float(f.value) > 0 else None

    def submitted(self) -> list[SubmittedModePart]:
        """The modes as the comparison with a model takes them."""
        found = []
        for mode in self.modes:
            shares = {axis: max(float(c.value), 0.0) for axis, q, d in _AXES if (c := self.of(q, d, mode)) is not None}
            rows = [ShapeRow(story=story, **values) for story, values in self.shapes.get(mode, {}).items()]
            found.append(SubmittedModePart(T=self.period(mode), mass_ratio=shares, shape=rows or None))
        return found


def _floor(claim: Claim) -> float:
    return half_unit(claim.text) * claim.scale


def _check(id_: str, quantity: str, direction: str | None, label: str, claim: Claim | None, **more: Any) -> Check:
    return Check(id_, Key(quantity, direction), label, claim, claim.point if claim else None, **more)


def _judged(check: Check, agrees: bool, level: int) -> Check:
    check.level = level
    check.verdict, check.role = ("agrees", None) if agrees else ("differs", "origin")
    return check


def _with_themselves(table: ModeTable, scale: float) -> list[Check]:
    """T f = 1, and running sums that are the sums of their rows (level 1)."""
    checks = []
    for mode in table.modes:
        T, f = table.of("T_mode", None, mode), table.of("f_mode", None, mode)
        if T is not None and f is not None and float(T.value) > 0 and float(f.value) > 0:
            check = _check(f"f_mode.{mode + 1}", "f_mode", None, f"f_n = 1/T_n mode {mode + 1}", f)
            rounding = _floor(T) / float(T.value) ** 2
            check.carried = compare(float(f.value), 1.0 / float(T.value), 0.01 * scale, _floor(f) + rounding)
            check.note = "their own period against their own frequency"
            checks.append(_judged(check, check.carried.agrees, 1))
    for running, part, direction in (("mass_running", "mass_ratio", "X"), ("mass_running", "mass_ratio", "Y"),
                                     ("mass_running_RZ", "mass_ratio_RZ", None)):  # fmt: skip
        added, rounding = 0.0, 0.0
        for mode in table.modes:
            own = table.of(part, direction, mode)
            if own is None:
                break
            added, rounding = added + float(own.value), rounding + _floor(own)
            stated = table.of(running, direction, mode)
            if stated is None:
                continue
            symbol = QUANTITIES[running].symbol
            check = _check(
                f"{running}.{direction or 'RZ'}.{mode + 1}",
                running,
                direction,
                f"{symbol} {direction or 'RZ'} mode {mode + 1}",
                stated,
            )
            check.carried = compare(float(stated.value), added, 0.005 * scale, _floor(stated) + rounding)
            check.note = "their running sum against the sum of their own rows"
            checks.append(_judged(check, check.carried.agrees, 1))
    return checks


def _against_target(
    table: ModeTable, target: float | None, clause: str, alternative: Alternative = lambda direction, total, periods: ""
) -> list[Check]:
    """Sum of the shares of each direction against what the code asks for.

    Where a rule that stands only where the target can't be met is met instead, the check stays open and says so.
    """
    checks = []
    for direction in DIRECTIONS if target is not None else ():
        rows = table.values.get(Key("mass_ratio", direction), {})
        if not rows:
            checks.append(
                Check(f"gap_mass_ratio.{direction}", Key("mass_ratio", direction), f"ΣM*/M {direction}", None, verdict="gap", clause=clause,
                      note=f"the shares of the mass in {direction} are not stated")
            )  # fmt: skip
            continue
        total = sum(float(c.value) for c in rows.values())
        rounding = sum(_floor(c) for c in rows.values())
        claim = Claim(quantity="mass_ratio", direction=direction, value=total, text=f"{total:.4g}",
                      source=Source(note=f"sum over {len(rows)} modes"))  # fmt: skip
        check = Check(
            f"mass_sum.{direction}", Key("mass_running", direction), f"ΣM*/M {direction}", claim, clause=clause
        )
        assert target is not None
        check.limit = {
            "value": target,
            "side": "min",
            "quantity": "mass_target",
            "symbol": "ΣM*/M",
            "clause": clause,
            "governed_by": None,
        }
        check.independent = compare(total, max(target, total), 0.01, rounding)
        check.level = 2
        if total > 1.0 + rounding + 1e-9:
            check.independent = compare(total, 1.0, 0.001, rounding)
            check.verdict, check.role, check.note = (
                "differs",
                "origin",
                "the shares of one direction sum to more than the whole mass",
            )
        elif total < target - rounding - 1e-9 and (
            said := alternative(direction, total, [t for m in table.modes if (t := table.period(m)) is not None])
        ):
            check.verdict, check.level, check.note = "open", 2, said
        elif total < target - rounding - 1e-9:
            check.verdict, check.role = "breaches", "origin"
            check.note = f"{len(rows)} modes reach {total:.1%} of the mass in {direction}; {target:.0%} is asked for"
        else:
            check.verdict = "agrees"
        checks.append(check)
    return checks


def _against_model(
    table: ModeTable, answer: Mapping[str, Any] | None, comparison: Mapping[str, Any] | None, scale: float
) -> list[Check]:
    """Periods and shares against the modes of our own model that they were matched with."""
    swapped = bool(comparison and comparison["swapped"])
    ours_of = {r["theirs"]: r for r in comparison["rows"] if r["theirs"]} if comparison else {}
    checks = []
    for place, mode in enumerate(table.modes):
        row = ours_of.get(place + 1)
        own = answer["modes"][row["ours"] - 1] if row and answer else None
        said = "our own model has not been run" if answer is None else "no mode of our own model is like it"
        if own is not None and row is not None:
            like = "" if row["mac"] is None else f", shapes alike to {row['mac']:.2f}"
            said = f"our mode {row['ours']} ({own['kind']}){like}"
        for axis, quantity, direction in (("T", "T_mode", None), *_AXES):
            claim = table.of(quantity, direction, mode)
            if claim is None:
                continue
            check = _check(
                f"{quantity}.{direction + '.' if direction else ''}{mode + 1}", quantity, direction,
                f"{QUANTITIES[quantity].symbol} {direction or ('RZ' if axis == 'RZ' else '')} mode {mode + 1}".replace("  ", " "), claim, note=said,
            )  # fmt: skip
            if own is not None:
                value = own["T"] if axis == "T" else own["mass_ratio"][axis]
                floor = _floor(claim) if axis == "T" else max(_floor(claim), SHARE_FLOOR)
                relative = QUANTITIES[quantity].tolerance * scale
                check.independent = compare(float(claim.value), float(value), relative, floor)
                _judged(check, check.independent.agrees, 3)
                if swapped and direction is not None and check.role == "origin":
                    other = own["mass_ratio"]["Y" if direction == "X" else "X"]
                    if compare(float(claim.value), float(other), relative, floor).agrees:
                        check.role, check.rests_on = "inherited", [SWAPPED]
            checks.append(check)
    return checks


def _of_the_whole(comparison: Mapping[str, Any] | None, answer: Mapping[str, Any] | None) -> list[Check]:
    """Axes exchanged, and modes of ours that their list lacks."""
    checks = []
    if comparison and comparison["swapped"]:
        like = comparison["likeness"]
        check = Check(SWAPPED, Key("mass_ratio", "X"), "axes X and Y", None, verdict="differs", role="origin", level=3)
        check.note = f"their modes fit our model only with X and Y exchanged (agreement {like['exchanged']:.2f}, as submitted {like['as_submitted']:.2f})"
        checks.append(check)
    for number in comparison["missing"] if comparison and answer else ():
        mode = answer["modes"][number - 1] if answer else {}
        most = max(("X", "Y"), key=lambda d: mode["mass_ratio"][d])
        checks.append(
            Check(f"missing_mode.{number}", Key("T_mode"), f"mode {number} of ours", None, verdict="gap",
                  note=f"our mode {number} (T = {mode['T']:.3g} s, {mode['mass_ratio'][most]:.1%} of the mass in {most}) has no counterpart in their list")
        )  # fmt: skip
    return checks


def modal_checks(
    claims: Sequence[Claim],
    target: float | None,
    clause: str,
    answer: Mapping[str, Any] | None,
    scale: float,
    alternative: Alternative = lambda direction, total, periods: "",
) -> tuple[list[Check], dict[str, Any] | None]:
    """Checks of the submitted modes, and their modes beside ours for the screens; nothing where none are submitted.

    answer : of our own model to `modal`, None where it hasn't been run.  scale : of the tolerances
    alternative : words on a rule that stands only where the target can't be met, by direction, sum of shares and periods
    """
    table = ModeTable()
    for claim in claims:
        table.add(claim)
    if not table.modes:
        return [], None
    submitted = table.submitted()
    comparison = compared(submitted, answer) if answer else None
    checks = [
        *_with_themselves(table, scale),
        *_against_target(table, target, clause, alternative),
        *_against_model(table, answer, comparison, scale),
        *_of_the_whole(comparison, answer),
    ]
    theirs = [
        {"mode": mode + 1, "T": part.T, "mass_ratio": part.mass_ratio,
         "shape": [row.model_dump() for row in part.shape] if part.shape else None}
        for mode, part in zip(table.modes, submitted, strict=True)
    ]  # fmt: skip
    return checks, {"theirs": theirs, "comparison": comparison, "target": target}
