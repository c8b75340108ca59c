"""Names: which quantity a parameter's name represents, and what the name of a load case says of its role."""

from __future__ import annotations

import re
from collections.abc import Mapping
from functools import cache, lru_cache

from plumb_core.documents.submission import LoadCase
from plumb_core.editions import EDITIONS, Edition
from plumb_core.intake.columns import normal

WORDS: Mapping[str, str] = {
    "R": "r responsemodificationcoefficient responsemodificationfactor",
    "lateral_system": "lateralsystem",
    "h_n": "hn structuralheight buildingheight",
    "T_a": "ta approximateperiod",
    "T_limit": "upperlimitonperiod tmax",
    "T_analysis": (
        "tanalysis analysisperiod periodfromanalysis periodfrommodalanalysis periodofthefirstmode "
        "modalperiod tmodal t1modal t1fromthemodes tfromthemodes periodfromthemodes t1fromanalysis "
        "tfromanalysis t1analysis"
    ),
    "T": "t t1 periodused tused fundamentalperiod",
    "coefficient": "v/w vw baseshearcoefficient",
    "W": "w seismicweight effectiveseismicweight totalseismicweight",
    "V": "v fb vb baseshear",
    "k": "k",
    "V_static": "vstatic staticbaseshear",
    "V_dynamic": "vdynamic vt dynamicbaseshear dynamicbaseshearbeforescaling modalbaseshear "
    "modalbaseshearbeforescaling "
    "baseshearmodal basesheardynamic baseshearfromthemodes dynamicshear vmodal vdyn",
    "V_scaled": "vscaled dynamicbaseshearafterscaling modalbaseshearafterscaling scaleddynamicbaseshear",
    "factor_used": "scalefactor scalingfactor factorused",
    "scaling_share": "scalingshare",
    "modes_count": "numberofmodes",
    "mass_target": "masstarget",
    "combined_by": "combinationofmodes modalcombination modescombinedby",
    "directions_by": "combinationofdirections directionalcombination",
    "damping": "dampingofthespectrum damping dampingratio viscousdamping viscousdampingratio",
    "damping_modes": "dampingofthemodes modaldamping",
    "spectrum_factor": "factoronthespectrum spectrumfactor",
    "eccentricity": "accidentaleccentricity",
    "torsion_stated": "torsionalirregularity",
    "drift_limit": "driftlimit allowabledrift",
    "C_d": "cd",
    "amplifier": "driftamplifier",
    "live_share": "liveloadshare",
    "diaphragms": "diaphragms diaphragm",
    "base_level": "baselevel",
    "edition_stated": "edition code",
    "second_order_stated": "secondordereffects pdelta",
    "theta_greatest": "stabilitycoefficient theta",
    "tension_only": "tensiononlymembers",
    "rho": "redundancyfactor rho",
}
"""Words of parameters whichever the edition, in addition to the symbols of the editions themselves."""


@cache
def parameter_names(edition: str = "") -> dict[str, str]:
    """Names of parameters, as they are normalised, and the quantity that each represents.

    Under an edition its own words come first, then those of any, then those of the others: a table may state more
    than the
    edition requires.
    """
    first = [EDITIONS[edition].parameter_names, WORDS] if edition else [WORDS]
    names: dict[str, str] = {}
    for words in (*first, *(e.parameter_names for e in EDITIONS.values())):
        for quantity, called in words.items():
            for name in called.split():
                names.setdefault(normal(name) or name, quantity)
    return names


def allowed_texts(quantity: str, edition: Edition | None) -> tuple[str, ...]:
    """Texts that a quantity can have under an edition, or under any; () where any will do."""
    texts: dict[str, None] = {}
    for stored in [edition] if edition else EDITIONS.values():
        entry = (
            stored.systems
            if quantity == "lateral_system"
            else stored.options.get(quantity, stored.texts.get(quantity, ()))
        )
        texts.update(dict.fromkeys(str(o) for o in entry))
    return tuple(texts)


NOTHING = ("live_share", "theta_greatest", "eccentricity")
"""Parameters that can be nothing under any edition."""


@cache
def may_be_zero(quantity: str) -> bool:
    """Whether a parameter is nothing where a code or an analysis states it."""
    return quantity in NOTHING or any(quantity in e.may_be_zero for e in EDITIONS.values())


_AXIS = re.compile(
    r"(?i)(?:e|eq|q|qe|ae|eh|s|sp|spec|rs|v|f|w|th|dyn|modal|static|seis|seismic|quake|lat|el|dir|direction)?([xy])"
    r"\d{0,2}(?:p|n|pos|neg|plus|minus)?"
)
"""A word that names an axis.

The letter alone, after what represents the action, or with a number or a side behind it.
"""


_AXIS_WORD = re.compile(
    r"(?i)\s*(?:in\s+|along\s+|for\s+)?(?:the\s+)?(?:direction|dir\.?|axis|richtung|sens|direcci[oó]n|direzione)?\s*[:=]?\s*"
    r"([xy])\s*[-\u2011 ]?(?:direction|dir\.?|axis|richtung)?\s*"
)


@lru_cache(maxsize=20_000)
def axis_named(text: str) -> str:
    """X or Y where a text names an axis and nothing else: X, x-dir, Y direction, along X; '' for anything else."""
    match = _AXIS_WORD.fullmatch(text)
    return match.group(1).upper() if match else ""


@lru_cache(maxsize=20_000)
def direction_in(name: str) -> str:
    """X or Y where the words of a case's name name one axis, '' where they name both or neither.

    Dyn and max name none.
    """
    axes = {m.group(1).upper() for word in re.split(r"[^A-Za-z0-9]+", name) if (m := _AXIS.fullmatch(word))}
    return axes.pop() if len(axes) == 1 else ""


_ACTION = re.compile(
    r"(?i)(equivalent|static|linear|modal|dyn(amic)?|response|spectr(um|al)|seismic|earthquake|quake|lateral|action|load|force|"
    r"case|time|history|scaled|unscaled|reduced|elastic|design|drift|positive|negative|pos|neg|plus|minus|ecc(entricity)?|"
    r"e|s|q|w|eq|rs|rsa|th|sp|spec|accidental|torsion|twist|direction|dir|along|in|no|lc|comb|combo|combination|env|envelope|max|min|ulc|d|l|t)"
)
"""Words of which names of seismic cases are made."""


def names_an_action(text: str) -> bool:
    """Whether all words of a text are such as names of cases are made of: Static X, EX+, not Block X."""
    words = [w for w in re.split(r"[^A-Za-z]+", text) if w]
    return all(_ACTION.fullmatch(w) or direction_in(w) for w in words)


_KINDS = (
    ("static", r"static|lateral force|equivalent"),
    ("time_history", r"time[ -]?history"),
    ("modal", r"modal|response spectrum|spectral|dynamic|\brs\b|\brsa\b"),
    ("gravity", r"dead|live|gravity"),
)
_STEPS = (("before", r"unscaled|before scaling"), ("after", r"\bscaled|after scaling"))


def role_of(name: str, direction: str = "", kind: str | None = None) -> LoadCase:
    """The role of a load case as far as its name states it; what it does not is null.

    direction, kind : known from elsewhere: the reviewer's answer, or the kind of the table
    """
    words = name.lower()
    reported = [k for k, pattern in _KINDS if re.search(pattern, words)]
    step = [s for s, pattern in _STEPS if re.search(pattern, words)]
    known = direction or direction_in(name)
    role = {
        "name": name,
        "kind": reported[0] if len(reported) == 1 else kind,
        "direction": known or None,
        "step": step[0] if len(step) == 1 else None,
    }
    return LoadCase.model_validate(role)
