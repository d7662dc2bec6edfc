"""Counts told in sentences, in every language: read, and held against the round (`craft/text/freehand/counts_told`)."""

from __future__ import annotations

import pytest

from craft.text.check import check
from craft.text.freehand.counts_told import clauses_told, counts_told

ROUNDS = {
    "en": ("Rnd", "6 sc in a magic ring", "inc in each st around", "sc around"),
    "de": ("Rd", "6 fM in einen Fadenring", "jede M verdoppeln", "1 fM in jede M"),
    "fr": ("Tour", "6 ms dans un cercle magique", "1 aug dans chaque maille", "1 ms dans chaque maille"),
    "es": ("Vuelta", "6 pb en anillo mágico", "1 aum en cada punto", "1 pb en cada punto"),
    "it": ("Giro", "6 mb nel cerchio magico", "1 aum in ogni maglia", "1 mb in ogni maglia"),
    "nl": ("Toer", "6 v in een magische ring", "meerder in elke steek", "1 v in elke steek"),
}
"""What each language calls a round, its ring, a round that doubles it and a plain one."""

SAID = {
    "en": (
        ", which makes 12.",
        ", which gives you 12 stitches.",
        ", ending with 12 sts.",
        " - you should have 12 sts now.",
        ", so you now have 12.",
        ", leaving you with 12 stitches.",
        ". That makes 12.",
        ". You should now have 12 stitches.",
        ". We have 12 stitches now.",
        ", for a total of 12 stitches.",
        ", 12 stitches in total.",
        ", bringing you to 12 stitches.",
        ", and you'll end up with 12.",
        " (you should have 12)",
        " (12 stitches in all)",
        " [makes 12 sts]",
        ", that's 12 stitches.",
        ". There should be 12 stitches.",
        ". This gives 12 stitches.",
        ". Stitch count: 12.",
        ". Total: 12 sts.",
        ", totalling 12 sts.",
        " until you have 12 stitches.",
        ", giving a total of 12.",
        ", so there are now twelve stitches.",
        ". It is 12 stitches now.",
        ". At the end you have 12 stitches.",
        ", 12 sts at the end of the round.",
        ", so 12 now.",
        ". End with 12 sts.",
        ", 12 altogether.",
    ),
    "de": (
        ", das macht 12.",
        ", das ergibt 12 Maschen.",
        ", so dass du 12 Maschen hast.",
        ", sodass es 12 Maschen sind.",
        ". Du hast jetzt 12 Maschen.",
        ". Nun hat man 12 Maschen.",
        ", bis 12 Maschen auf der Nadel sind.",
        ". Es sind jetzt zwölf Maschen.",
        ", insgesamt 12 Maschen.",
        ", 12 Maschen insgesamt.",
        ". Am Ende sind es 12 Maschen.",
        " (ergibt 12 M)",
        " (jetzt 12 M)",
        " (nun hast du 12 Maschen)",
        ". Jetzt solltest du 12 Maschen haben.",
        ", damit haben wir 12 Maschen.",
        ", also 12 Maschen.",
        ", am Rundenende 12 M.",
        ". Maschenzahl: 12.",
        ". Gesamt: 12 M.",
        ", dann hast du 12.",
        ". So erhältst du 12 Maschen.",
        ". Wir haben nun 12 feste Maschen.",
    ),
    "fr": (
        ", ce qui fait 12 mailles.",
        ", ce qui donne 12 m.",
        ", soit 12 mailles.",
        ". Vous avez maintenant 12 mailles.",
        ". Tu as 12 mailles.",
        ". On a 12 mailles.",
        ", vous obtenez 12 mailles.",
        ", pour un total de 12 mailles.",
        ", 12 mailles au total.",
        " (il y a 12 mailles)",
        " (total de 12 mailles)",
        ". Cela fait 12 mailles.",
        ". Ça fait douze mailles.",
        ". Vous devriez avoir 12 mailles.",
        ". À la fin vous avez 12 mailles.",
        ", de façon à avoir 12 mailles.",
        ", donc 12 mailles.",
        ". Nombre de mailles : 12.",
        ". Total : 12 ms.",
        ", afin d'obtenir 12 mailles.",
        ", on se retrouve avec 12 mailles.",
    ),
    "es": (
        ", lo que da 12 puntos.",
        ", que hacen 12 puntos.",
        ", en total 12 puntos.",
        ", 12 puntos en total.",
        ". Ahora tienes 12 puntos.",
        ". Tenemos 12 puntos.",
        ". Debes tener 12 puntos.",
        ". Quedan 12 puntos.",
        " (son 12 puntos)",
        " (total: 12 pb)",
        ". Al final tendrás 12 puntos.",
        ". Deberías tener doce puntos.",
        ", así tendrás 12 puntos.",
        ", hasta tener 12 puntos.",
        ". Nos quedan 12 puntos.",
        ", es decir, 12 puntos.",
        ". Hay 12 puntos.",
        ". En total hay 12 puntos.",
        ". Total de puntos: 12.",
        ", para un total de 12 puntos.",
        ", obteniendo 12 puntos.",
    ),
    "it": (
        ", per un totale di 12 maglie.",
        ", che fanno 12 maglie.",
        ", in totale 12 maglie.",
        ", 12 maglie in totale.",
        ". Ora hai 12 maglie.",
        ". Avrai 12 maglie.",
        ". Dovresti avere 12 maglie.",
        ". Sono 12 maglie.",
        " (in tutto 12 maglie)",
        " (totale 12 mb)",
        ". Alla fine avrete 12 maglie.",
        ", così da avere 12 maglie.",
        ", ottenendo 12 maglie.",
        ". Adesso ci sono dodici maglie.",
        ", ovvero 12 maglie.",
        ". Totale maglie: 12.",
        ". Si ottengono 12 maglie.",
        ". Ci ritroviamo con 12 maglie.",
        ", quindi 12 maglie.",
    ),
    "nl": (
        ", dat zijn 12 steken.",
        ", dat maakt 12 steken.",
        ", in totaal 12 steken.",
        ", 12 steken in totaal.",
        ". Je hebt nu 12 steken.",
        ". We hebben nu 12 steken.",
        ". Je zou nu 12 steken moeten hebben.",
        ". Er zijn nu 12 steken.",
        " (dit geeft 12 steken)",
        " (totaal 12 v)",
        ". Aan het eind heb je 12 steken.",
        ", zodat je 12 steken hebt.",
        ", tot je 12 steken hebt.",
        ". Nu heb je twaalf steken.",
        ", dus 12 steken.",
        ". Aantal steken: 12.",
        ". Je houdt 12 steken over.",
        ". Zo krijg je 12 steken.",
        ", oftewel 12 steken.",
    ),
}  # fmt: skip
"""How people say behind a round's work that it has twelve stitches."""

WORDS = ("twelve", "zwölf", "douze", "doce", "dodici", "twaalf")
"""Twelve in words, which other sentences say in digits."""


def _text(language: str, sentence: str) -> str:
    called, ring, doubled, plain = ROUNDS[language]
    return f"BALL\n{called} 1: {ring} (6)\n{called} 2: {doubled}{sentence}\n{called} 3: {plain}\n"


SENTENCES = [(language, sentence) for language, all_of_it in SAID.items() for sentence in all_of_it]


@pytest.mark.parametrize(("language", "sentence"), SENTENCES)
def test_a_count_in_a_sentence_is_read(language: str, sentence: str) -> None:
    found = check(_text(language, sentence))
    assert found.sound, [p.message for p in found.problems]
    assert [part.counts for part in found.parts] == [(6, 12, 12)]


@pytest.mark.parametrize(("language", "sentence"), SENTENCES)
def test_another_count_in_a_sentence_is_a_fault(language: str, sentence: str) -> None:
    other = next((sentence.replace(word, "13") for word in WORDS if word in sentence), sentence.replace("12", "13"))
    assert not check(_text(language, other)).sound


@pytest.mark.parametrize(
    "text",
    [
        "2 sc in the next 12 sts",
        "sc in each of the remaining 12 stitches",
        "Repeat rounds 2 and 3 another 12 times",
        "inc in every 4th st, all round",
        "2 M zusammen",
        "1 ms dans les 12 mailles suivantes",
        "make 2",
        "Stuff it until it is firm.",
        "skip 12, leave the rest",
    ],
)
def test_other_numbers_are_no_counts(text: str) -> None:
    assert [*counts_told(text, "en"), *clauses_told(text)] == []


def test_where_a_clause_stands_is_told() -> None:
    text = "inc around, so you should now have 12 stitches."
    told = next(counts_told(text, "en"))
    assert (told.count, text[told.start : told.end]) == (12, "so you should now have 12 stitches.")
    behind = "sc in next 2 sts makes 12"
    assert behind[next(counts_told(behind, "en")).start :] == "makes 12"


def test_a_long_run_of_its_words_costs_nothing() -> None:
    assert list(counts_told("so you now have " * 2_000, "en")) == []
