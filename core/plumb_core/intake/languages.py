"""Engineering words of headings in German, French, Spanish and Italian, as the English ones that kinds of tables know."""

from __future__ import annotations

from functools import cache

_WORDS: dict[str, str] = {
    "story": "geschoss stockwerk étage etage planta piso piano",
    "level": "ebene niveau nivel livello kote cote cota quota",
    "height": "geschosshöhe höhe hoehe hauteur altura altezza",
    "weight": "gewicht poids peso",
    "mass": "masse masa massa",
    "case": "lastfall casdecharge casodecarga casodicarico",
    "direction": "richtung dirección direccion direzione sens",
    "force": "kraft effort fuerza forza",
    "shear": "querkraft efforttranchant cortante taglio",
    "moment": "kippmoment momento",
    "period": "periode période eigenperiode periodo período",
    "frequency": "frequenz eigenfrequenz fréquence frequence frecuencia frequenza",
    "mode": "eigenform modus modo",
    "sum": "summe cumul cumulé acumulado cumulato",
    "share": "anteil part participación partecipazione",
    "value": "wert valeur valor valore",
    "unit": "einheit unité unite unidad unità unita",
    "parameter": "kennwert paramètre parametre parámetro parametro",
    "displacement": "verschiebung déplacement deplacement desplazamiento spostamento",
    "acceleration": "beschleunigung spektralbeschleunigung accélération aceleración accelerazione",
    "drift": "stockwerksverschiebung geschossverschiebung derive dérive deriva",
}


@cache
def _by_length() -> list[tuple[str, str]]:
    pairs = [(foreign, english) for english, words in _WORDS.items() for foreign in words.split()]
    return sorted(pairs, key=lambda pair: -len(pair[0]))


def in_english(plain: str) -> str:
    """A heading without spaces and signs, in small letters, with its foreign words in English; as it is where it has none."""
    for foreign, english in _by_length():
        if foreign in plain:
            plain = plain.replace(foreign, english)
    return plain
