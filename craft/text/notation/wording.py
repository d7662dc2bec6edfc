"""How rounds are worded: abbreviated or spelled out, in US, UK or letter terms, or in another language.

Only what is read back is English. The others are tables of terms: rounds translate
by rule, prose stays as it was written.
"""

from __future__ import annotations

from dataclasses import dataclass
from types import MappingProxyType

from craft.rounds.stitches import Language, Loops, Stitch, Terms, stitch

_ENGLISH: dict[str, str] = {
    "round": "R{}",
    "rounds": "R{}-R{}",
    "row": "Row {}",
    "rows": "Rows {}-{}",
    "next-round": "Next round",
    "next-row": "Next row",
    "longer": " (or to R{})",
    "ring": "{} in ring",
    "chain2": "ch 2, {} in 2nd ch from hook",
    "around": "{} around",
    "to-last": "{} to last {} sts",
    "cluster": "({}) in next st",
    "same": "{} in same st",
    "skip": "skip {}",
    "skip-slip": "skip the sl sts",
    "chain": "ch {}",
    "counts": " (counts as a stitch)",
    "counts-not": " (does not count)",
    "from": "from {} ch",
    "join": "join",
    "turn": "turn",
    "leave": "leave the rest",
    "leave-n": "leave last {} sts",
    "shift": "shift {}",
    "again": "repeat R{}",
    "again-range": "repeat R{}-R{}",
    "with": "with {}",
    "colour": "Change to {}",
    "rejoin": "rejoin {}",
    "main": "back on the main edge",
    "other-side": "along the other side of the chain",
    "piece": "around the {}",
    "held": "on the held stitches",
    "free": "in the free loops",
    "free-front": "in the free front loops",
    "free-back": "in the free back loops",
    "of-round": " of R{}",
    "side": "along the edge",
    "base": "in the edge sts",
    "both-layers": "through both layers",
    "through": "through the {}",
    "loops-both": "in both loops",
    "loops-front": "in FLO",
    "loops-back": "in BLO",
    "loops-front-post": "around front posts",
    "loops-back-post": "around back posts",
    "lead-front": "FLO: ",
    "lead-back": "BLO: ",
    "front-post": "FP",
    "back-post": "BP",
    "make": "{} (make {})",
}

_SPELLED = {
    "round": "Round {}",
    "rounds": "Rounds {} to {}",
    "ring": "{} in a magic ring",
    "chain2": "chain 2, {} in the second chain from the hook",
    "to-last": "{} to the last {} stitches",
    "cluster": "({}) all in the next stitch",
    "same": "{} in the same stitch",
    "skip": "skip {} stitches",
    "skip-slip": "skip the slip stitches",
    "chain": "chain {}",
    "from": "from the {} chain",
    "join": "join with a slip stitch",
    "leave": "leave the remaining stitches unworked",
    "leave-n": "leave the last {} stitches unworked",
    "shift": "{} extra stitches to shift the start",
    "again": "repeat round {}",
    "again-range": "repeat rounds {} to {}",
    "base": "in the edge stitches",
    "loops-front": "in the front loops only",
    "loops-back": "in the back loops only",
    "lead-front": "In the front loops only: ",
    "lead-back": "In the back loops only: ",
    "front-post": "front post ",
    "back-post": "back post ",
    "of-round": " of round {}",
    "longer": ", or to round {} for a longer one",
}

_GERMAN = {
    "round": "Rd {}", "rounds": "Rd {}-{}", "row": "Reihe {}", "rows": "Reihen {}-{}", "next-round": "Nächste Rd",
    "next-row": "Nächste Reihe", "longer": " (oder bis Rd {})", "ring": "{} in den Fadenring",
    "chain2": "2 Lm, {} in die 2. Lm ab Nadel", "around": "{} rundum", "to-last": "{} bis zu den letzten {} M",
    "cluster": "({}) in die nächste M", "same": "{} in dieselbe M", "skip": "{} M überspringen",
    "skip-slip": "die Km überspringen", "chain": "{} Lm", "counts": " (zählen als M)", "counts-not": " (zählen nicht)",
    "from": "ab der {} Lm", "join": "mit Km schließen", "turn": "wenden", "leave": "Rest unbehäkelt lassen",
    "leave-n": "letzte {} M unbehäkelt lassen", "shift": "{} Versatzmaschen", "again": "Rd {} wiederholen",
    "again-range": "Rd {}-{} wiederholen", "with": "in {}", "colour": "Wechsel zu {}", "rejoin": "Faden neu ansetzen {}",
    "main": "zurück am Hauptrand", "other-side": "an der anderen Seite der Lm-Kette", "piece": "rund um {}",
    "held": "über die stillgelegten M", "free": "in die freien Mg", "free-front": "in die freien vorderen Mg",
    "free-back": "in die freien hinteren Mg", "of-round": " von Rd {}", "side": "entlang der Kante",
    "base": "in die Randmaschen", "both-layers": "durch beide Lagen", "through": "durch {} und dieses Teil",
    "loops-both": "in beide Mg", "loops-front": "nur vordere Mg", "loops-back": "nur hintere Mg",
    "loops-front-post": "als vordere Relief-M", "loops-back-post": "als hintere Relief-M", "lead-front": "Nur vordere Mg: ",
    "lead-back": "Nur hintere Mg: ", "front-post": "vorderes Relief-", "back-post": "hinteres Relief-", "make": "{} ({} x)",
}  # fmt: skip

_FRENCH = {
    "round": "T{}", "rounds": "T{}-T{}", "row": "Rang {}", "rows": "Rangs {}-{}", "next-round": "Tour suivant",
    "next-row": "Rang suivant", "longer": " (ou jusqu'au T{})", "ring": "{} dans le cercle magique",
    "chain2": "2 ml, {} dans la 2e ml", "around": "{} sur tout le tour", "to-last": "{} jusqu'aux {} dernières m",
    "cluster": "({}) dans la m suivante", "same": "{} dans la même m", "skip": "sauter {} m", "skip-slip": "sauter les mc",
    "chain": "{} ml", "counts": " (comptent pour une m)", "counts-not": " (ne comptent pas)", "from": "à partir de la {} ml",
    "join": "fermer par 1 mc", "turn": "tourner", "leave": "laisser le reste en attente",
    "leave-n": "laisser les {} dernières m", "shift": "{} m de décalage", "again": "répéter le T{}",
    "again-range": "répéter les T{}-T{}", "with": "en {}", "colour": "Changer pour {}", "rejoin": "rattacher le fil {}",
    "main": "retour sur le bord principal", "other-side": "de l'autre côté de la chaînette", "piece": "autour de {}",
    "held": "sur les m en attente", "free": "dans les brins libres", "free-front": "dans les brins avant libres",
    "free-back": "dans les brins arrière libres", "of-round": " du T{}", "side": "le long du bord",
    "base": "dans les m du bord", "both-layers": "à travers les deux épaisseurs", "through": "à travers {} et cette pièce",
    "loops-both": "dans les deux brins", "loops-front": "brin avant", "loops-back": "brin arrière",
    "loops-front-post": "en relief avant", "loops-back-post": "en relief arrière", "lead-front": "Brin avant : ",
    "lead-back": "Brin arrière : ", "front-post": "relief avant ", "back-post": "relief arrière ", "make": "{} ({} fois)",
}  # fmt: skip

_SPANISH = {
    "round": "V{}", "rounds": "V{}-V{}", "row": "Hilera {}", "rows": "Hileras {}-{}", "next-round": "Vuelta siguiente",
    "next-row": "Hilera siguiente", "longer": " (o hasta la V{})", "ring": "{} en el anillo mágico",
    "chain2": "2 cad, {} en la 2ª cad", "around": "{} en toda la vuelta", "to-last": "{} hasta los últimos {} p",
    "cluster": "({}) en el p siguiente", "same": "{} en el mismo p", "skip": "saltar {} p", "skip-slip": "saltar los pr",
    "chain": "{} cad", "counts": " (cuentan como p)", "counts-not": " (no cuentan)", "from": "desde la {} cad",
    "join": "cerrar con 1 pr", "turn": "girar", "leave": "dejar el resto sin tejer", "leave-n": "dejar los últimos {} p",
    "shift": "{} p de desplazamiento", "again": "repetir la V{}", "again-range": "repetir las V{}-V{}", "with": "en {}",
    "colour": "Cambiar a {}", "rejoin": "unir el hilo {}", "main": "de vuelta en el borde principal",
    "other-side": "por el otro lado de la cadena", "piece": "alrededor de {}", "held": "en los p en espera",
    "free": "en las hebras libres", "free-front": "en las hebras delanteras libres",
    "free-back": "en las hebras traseras libres", "of-round": " de la V{}", "side": "a lo largo del borde",
    "base": "en los p del borde", "both-layers": "a través de ambas capas", "through": "a través de {} y esta pieza",
    "loops-both": "en ambas hebras", "loops-front": "solo hebra delantera", "loops-back": "solo hebra trasera",
    "loops-front-post": "en relieve por delante", "loops-back-post": "en relieve por detrás",
    "lead-front": "Solo hebra delantera: ", "lead-back": "Solo hebra trasera: ", "front-post": "relieve delante ",
    "back-post": "relieve detrás ", "make": "{} ({} veces)",
}  # fmt: skip

_ITALIAN = {
    "round": "G{}", "rounds": "G{}-G{}", "row": "Riga {}", "rows": "Righe {}-{}", "next-round": "Giro successivo",
    "next-row": "Riga successiva", "longer": " (o fino al G{})", "ring": "{} nell'anello magico",
    "chain2": "2 cat, {} nella 2a cat", "around": "{} per tutto il giro", "to-last": "{} fino alle ultime {} m",
    "cluster": "({}) nella m successiva", "same": "{} nella stessa m", "skip": "saltare {} m",
    "skip-slip": "saltare le mbss", "chain": "{} cat", "counts": " (contano come m)", "counts-not": " (non contano)",
    "from": "dalla {} cat", "join": "chiudere con 1 mbss", "turn": "girare", "leave": "lasciare in sospeso le m restanti",
    "leave-n": "lasciare in sospeso le ultime {} m", "shift": "{} m di spostamento", "again": "ripetere il G{}",
    "again-range": "ripetere i G{}-G{}", "with": "in {}", "colour": "Cambiare in {}", "rejoin": "riattaccare il filo {}",
    "main": "di nuovo sul bordo principale", "other-side": "lungo l'altro lato della catenella", "piece": "intorno a {}",
    "held": "sulle m in sospeso", "free": "nelle asole libere", "free-front": "nelle asole anteriori libere",
    "free-back": "nelle asole posteriori libere", "of-round": " del G{}", "side": "lungo il bordo",
    "base": "nelle m del bordo", "both-layers": "attraverso entrambi gli strati",
    "through": "attraverso {} e questo pezzo", "loops-both": "in entrambe le asole", "loops-front": "solo asola anteriore",
    "loops-back": "solo asola posteriore", "loops-front-post": "in rilievo davanti", "loops-back-post": "in rilievo dietro",
    "lead-front": "Solo asola anteriore: ", "lead-back": "Solo asola posteriore: ", "front-post": "rilievo davanti ",
    "back-post": "rilievo dietro ", "make": "{} ({} volte)",
}  # fmt: skip

_DUTCH = {
    "round": "T{}", "rounds": "T{}-T{}", "row": "Rij {}", "rows": "Rijen {}-{}", "next-round": "Volgende toer",
    "next-row": "Volgende rij", "longer": " (of tot T{})", "ring": "{} in de magische ring",
    "chain2": "2 l, {} in de 2e l", "around": "{} rondom", "to-last": "{} tot de laatste {} st",
    "cluster": "({}) in de volgende st", "same": "{} in dezelfde st", "skip": "sla {} st over",
    "skip-slip": "sla de hv over", "chain": "{} l", "counts": " (telt als st)", "counts-not": " (telt niet)",
    "from": "vanaf de {} l", "join": "sluit met 1 hv", "turn": "keren", "leave": "laat de overige st onbewerkt",
    "leave-n": "laat de laatste {} st onbewerkt", "shift": "{} verschuifsteken", "again": "herhaal T{}",
    "again-range": "herhaal T{}-T{}", "with": "in {}", "colour": "Wissel naar {}", "rejoin": "hecht de draad aan {}",
    "main": "terug op de hoofdrand", "other-side": "langs de andere kant van de lossen", "piece": "rond {}",
    "held": "op de onbewerkte st", "free": "in de vrije lussen", "free-front": "in de vrije voorste lussen",
    "free-back": "in de vrije achterste lussen", "of-round": " van T{}", "side": "langs de rand",
    "base": "in de randsteken", "both-layers": "door beide lagen", "through": "door {} en dit deel",
    "loops-both": "in beide lussen", "loops-front": "alleen voorste lus", "loops-back": "alleen achterste lus",
    "loops-front-post": "als reliëf voor", "loops-back-post": "als reliëf achter", "lead-front": "Alleen voorste lussen: ",
    "lead-back": "Alleen achterste lussen: ", "front-post": "reliëf voor ", "back-post": "reliëf achter ",
    "make": "{} ({} keer)",
}  # fmt: skip

PHRASES = MappingProxyType({
    Language.GERMAN: _GERMAN, Language.FRENCH: _FRENCH, Language.SPANISH: _SPANISH, Language.ITALIAN: _ITALIAN,
    Language.DUTCH: _DUTCH,
})  # fmt: skip
"""Every phrase in every language but English."""


_NTH = MappingProxyType({Language.FRENCH: "e", Language.SPANISH: "ª", Language.ITALIAN: "a", Language.DUTCH: "e"})


@dataclass(frozen=True, slots=True)
class Wording:
    """In which words to print. spelled: stitches by their full names. language: another language."""

    terms: Terms = Terms.US
    spelled: bool = False
    language: Language | None = None

    def say(self, phrase: str, *values: object) -> str:
        """A phrase with its values put in."""
        table = PHRASES[self.language] if self.language is not None else _SPELLED if self.spelled else _ENGLISH
        return table.get(phrase, _ENGLISH[phrase]).format(*values)

    def nth(self, n: int) -> str:
        """An ordinal of a chain from the hook."""
        if self.language is Language.GERMAN:
            return f"{n}."
        if self.language is not None:
            return f"{n}{_NTH[self.language]}"
        words = {2: "2nd", 3: "3rd"}
        spelled = {2: "second", 3: "third", 4: "fourth", 5: "fifth"}
        return spelled.get(n, f"{n}th") if self.spelled else words.get(n, f"{n}th")

    def name(self, entry: Stitch, loops: Loops | None = None) -> str:
        """A stitch's name, raised around a post when it says so."""
        if self.language is not None:
            plain = entry.abbreviated(self.language)
        else:
            plain = entry.called(self.terms) if self.spelled else entry.name(self.terms)
        if entry.postable and loops in (Loops.FRONT_POST, Loops.BACK_POST):
            if self.terms is Terms.LETTERS and self.language is None and not self.spelled:
                plain = entry.us[0]
            return self.say(loops.value) + plain
        return plain

    @property
    def letters(self) -> bool:
        """Whether stitches are single letters."""
        return self.terms is Terms.LETTERS and not self.spelled and self.language is None

    def is_letter(self, key: str, name: str) -> bool:
        """Whether `name` is the stitch's letter."""
        return self.letters and stitch(key).letter == name
