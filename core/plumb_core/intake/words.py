"""Words of headings: the trade's, their short forms, and those of four other languages, in one order.

A heading such as "Maximum inter-storey drift" and one such as "Drift, max." come to the same words in the same order, which
patterns of columns are then matched with. A word that is not known here stays, so that its heading matches nothing.
"""

from __future__ import annotations

import re
import unicodedata
from functools import cache, lru_cache

_REDUNDANT_WORDS: dict[str, str] = {
    # which of several values
    "max": "max maximum maximal greatest largest larger greater peak maxi massimo massima máximo máxima maximo maxima maximale",
    "min": "min minimum minimo minima mínimo",
    "mean": "mean average avg ave moyen moyenne media medio mittel mittelwert mittlere promedio",
    "sum": "sum cumulative cumulated cumul cum cumulé cumulée cumulees running accumulated acc total summe kumuliert acumulado "
    "acumulada cumulato cumulata somme suma σ",
    # of what
    "design": "design calcul diseño progetto bemessung",
    "seismic": "seismic seis sismique sísmico sísmica sismico sismica seismisch seismisches seismische erdbeben",
    "lateral": "lateral horizontal latéral latérale laterale orizzontale horizontale",
    "effective": "effective eff efectiva effettiva",
    "modal": "modal modale natural propre propio proprio",
    "participation": "participation participating part participante partecipante partecipazione participación",
    "spectral": "spectral spettrale espectral spektral spektrale",
    "overturning": "overturning overturn ot kipp renversement vuelco ribaltamento",
    "base": "base basis",
    "story": "story storey interstory interstorey stories storeys sty stry floor flr geschoss stockwerk stockwerks étage etage entrepiso interpiano "
    "planta piso piano niv",
    "level": "level lvl lev elevation elev el ebene niveau nivel livello kote cote cota quota höhenlage",
    "height": "height ht hgt höhe hoehe hauteur altura altezza",
    "weight": "weight wt gewicht poids peso",
    "mass": "mass masse masa massa",
    "case": "case lastfall cas caso",
    "load": "load charge carga carico last",
    "combination": "combination combo comb combinaison combinación combinacion combinazione kombination lastkombination",
    "factor": "factor facteur faktor fattore beiwert",
    "direction": "direction dir dirn direct richtung dirección direccion direzione sens axis axe eje asse",
    "force": "force forces kraft effort fuerza forza",
    "shear": "shear shears querkraft tranchant cortante taglio schub",
    "moment": "moment moments momento mom",
    "period": "period periode période eigenperiode periodo período schwingzeit schwingdauer",
    "frequency": "frequency freq frequenz eigenfrequenz fréquence frequence frecuencia frequenza",
    "mode": "mode modes eigenform modus modo",
    "share": "share anteil quota-parte",
    "ratio": "ratio ratios rapport relación relacion rapporto verhältnis",
    "value": "value values wert valeur valor valore",
    "unit": "unit units einheit unité unite unidad unità unita",
    "parameter": "parameter parameters größe grösse groesse grosse kenngröße grandeur grandezza magnitud kennwert paramètre parametre parámetro parametro",
    "drift": "drift drifts δ stockwerksverschiebung geschossverschiebung stockwerksverdrehung dérive derive deriva derivas",
    "displacement": "displacement displacements displ disp deflection deflections defl sway verschiebung déplacement deplacement "
    "desplazamiento spostamento",
    "rotation": "rotation rot verdrehung rotación rotacion rotazione",
    "torsion": "torsion torsional",
    "acceleration": "acceleration accel beschleunigung spektralbeschleunigung accélération aceleración accelerazione",
    "inertia": "inertia",
    "centre": "centre center centroid",
    "end": "end edge corner ende bout extrémité extremo estremo rand",
    "stability": "stability",
    "stiffness": "stiffness steifigkeit rigidité rigidez rigidezza",
    "number": "number no num nr id point punto punkt",
    "omega": "ω omega circular angular",
    "theta": "θ theta",
    # nothing that distinguishes one column from another
    "": "translation translational of the in at for along about resulting from and de du des d la le les von der die das della dello di del al à to per "
    "each by with",
    "relative": "relative inter relativ relativo relativa",
}
_ORDER = (
    "design seismic lateral torsion max mean sum base modal effective overturning load story combination level mode spectral "
    "mass participation share drift displacement force shear moment weight height period frequency omega acceleration inertia "
    "centre rotation stability theta stiffness case direction factor ratio value unit parameter end number"
)
_PLACE = {word: i for i, word in enumerate(_ORDER.split())}
_AXIS = re.compile(r"r?[xyz]|u[xyz]")
_SYMBOLS = {
    "f": "force",
    "v": "shear",
    "h": "height",
    "t": "period",
    "w": "weight",
    "m": "mass moment",
    "sa": "acceleration",
    "u": "displacement",
    "δ": "drift displacement",
    "ω": "frequency",
    "q": "shear",
}
"""Symbols that say again what a word beside them says."""


def are_known(text: str) -> bool:
    """Whether a text is made of words that headings are made of, such as max, and so not a unit."""
    words = re.findall(r"[^\W\d_]+", text.lower())
    return bool(words) and all(len(w) > 2 and w in _vocabulary() for w in words)


@cache
def _vocabulary() -> dict[str, str]:
    return {words: word for word, all_said in _REDUNDANT_WORDS.items() for words in all_said.split()}


@lru_cache(maxsize=5_000)
def _parted(word: str) -> tuple[str, ...]:
    """A word as the known ones that it is made of, such as Geschosshöhe and storyforce; itself where it is made of none."""
    known = _vocabulary()
    if word in known:
        return (known[word],)
    best: dict[int, tuple[str, ...]] = {0: ()}
    for end in range(1, len(word) + 1):
        for start in range(max(0, end - 24), end):
            piece = word[start:end]
            if start not in best or not (len(piece) >= 3 or piece in ("σ", "δ", "θ", "ω")):
                continue
            # the joint of a German compound
            joint = piece[:-1] if len(piece) > 5 and piece.endswith("s") and piece not in known else piece
            if joint in known:
                parts = (*best[start], known[joint])
                if end not in best or len(parts) < len(best[end]):
                    best[end] = parts
    if len(word) in best:
        return best[len(word)]
    # a symbol behind a sign that says what it is: Σm
    if word[:1] in ("σ", "δ") and len(word) > 1:
        return (known[word[0]], *_parted(word[1:]))
    return (word,)


@lru_cache(maxsize=5_000)
def in_order(text: str) -> str:
    """The words of a heading in one order and without spaces; units in brackets have to be removed before."""
    plain = unicodedata.normalize("NFKC", text).lower()
    words = [w for w in re.split(r"[^\w%]+|_|(?<=[^\W\d])(?=\d)", plain) if w]
    parts = [p for w in words for p in _parted(w) if p]
    if "relative" in parts:
        # What moves against the story below is the drift
        parts = ["drift" if p == "displacement" else p for p in parts if p != "relative"]
    axes = [p for p in parts if _AXIS.fullmatch(p)]
    numbers = [p for p in parts if p.isdigit() or p in ("a", "b", "one", "two")]
    rest = [p for p in dict.fromkeys(parts) if p not in axes and p not in numbers]
    rest = [p for p in rest if not any(w in rest for w in _SYMBOLS.get(p, "").split())]
    if axes and len(rest) > 1:
        rest = [p for p in rest if p != "direction"]
    known = sorted((p for p in rest if p in _PLACE), key=_PLACE.__getitem__)
    unknown = [p for p in rest if p not in _PLACE]
    return "".join([*known, *unknown, *dict.fromkeys(numbers), *dict.fromkeys(axes)])
