"""The files of a booklet: what readers of PDF and EPUB rely on, and that no word of the tree is lost in any of them."""

from __future__ import annotations

import io
import json
import re
import zipfile
from html.parser import HTMLParser
from typing import Any
from xml.etree import ElementTree

import pytest
from fontTools.ttLib import TTFont
from PIL import Image
from pypdf import PdfReader

from studio.booklets.printing import FONTS
from studio.booklets.scripts import SCRIPTS, scripts_in
from tests.studio.conftest import BALL, Studio
from tests.studio.test_pictures import upload

pytestmark = pytest.mark.django_db(transaction=True)

EAR = "R1: 6 sc in ring [6]\nR2: 6 inc [12]\nR3-R4: sc around [12]\nFasten off & leave a <long> tail.\n"


@pytest.fixture
def design(studio: Studio) -> dict[str, Any]:
    made, key = studio.with_part()
    made = studio.ask("POST", f"/designs/{made['id']}/parts", {"name": "Ohr «Ж»", "text": EAR, "make": 2}, 201)
    ear = made["parts"][1]["key"]
    step = {
        "key": "step01",
        "text": "Sew the ears on.",
        "part": ear,
        "on": key,
        "round": 3,
        "stitch": 4,
        "paired": True,
    }
    mark = {"key": "mark01", "name": "window", "part": key, "round": 5, "made_of": "felt", "wide_mm": 12, "tall_mm": 8}
    pages = (
        ("assembly", {"steps": [step], "marks": [mark], "eye_kind": "safety", "eye_mm": 8,
                      "eyes": {"part": key, "round": 4, "between": 4}}),
        ("brief", {"intro": "A moth in a nightcap."}),
        ("booklet", {"count_table": True, "charts": True, "notes": "Take your time."}),
    )  # fmt: skip
    for page, data in pages:
        path = f"/designs/{made['id']}/pages"
        made = studio.ask("PUT", path, {"page": page, "base": made["revision"], "data": data})
    studio.ask("POST", f"/designs/{made['id']}/booklet/pictures", {})
    return made


def file(studio: Studio, design: dict[str, Any], ending: str, **asked: str) -> bytes:
    query = "&".join(f"{k}={v}" for k, v in asked.items())
    got = studio.client.get(f"/api/designs/{design['id']}/booklet.{ending}?{query}")
    assert got.status_code == 200, got.content[:300]
    return bytes(got.content)


def words_of(tree: dict[str, Any], *, captions: bool) -> list[str]:
    """Every word that the tree prints, but drawings; with captions of pictures, which texts do not have."""
    told: list[str] = [tree["title"], tree["byline"]]
    for section in tree["sections"]:
        told.append(section["title"])
        for block in section["blocks"]:
            told += [block.get("text", ""), *map(str, block.get("lines", []))] if block["block"] != "Rounds" else []
            told += [f"{a} {b}" for a, b in block["rows"]] if block["block"] == "Facts" else []
            if block["block"] == "Rounds":
                told += [
                    f"{x['label']} {x['work']} {x['count']}" if x["kind"] == "round" else x["text"]
                    for x in block["lines"]
                ]
            told += [p["caption"] for p in block.get("items", [])] if captions else []
    return [w for text in told for w in text.split()]


def squeezed(text: str) -> str:
    return re.sub(r"[\s\u00ad-]+", "", text)


def test_the_pdf_is_tagged_tells_its_language_and_has_bookmarks(studio: Studio, design: dict[str, Any]) -> None:
    reader = PdfReader(io.BytesIO(file(studio, design, "pdf", language="de")))
    root = reader.trailer["/Root"]
    assert root["/Lang"] == "de"
    assert root["/MarkInfo"]["/Marked"]
    assert "/StructTreeRoot" in root
    assert reader.metadata is not None
    assert reader.metadata.title == "Moth"
    titles = [o.title for o in reader.outline if not isinstance(o, list)]
    assert titles[:3] == ["Über diese Figur", "Material", "Maschenprobe"]
    nested = [o.title for group in reader.outline if isinstance(group, list) for o in group]
    assert any("Ohr" in title for title in nested), "parts are below the chapters"
    fonts = [f.get_object() for page in reader.pages for f in page["/Resources"].get("/Font", {}).values()]
    assert fonts
    for font in fonts:
        below = font["/DescendantFonts"][0].get_object() if "/DescendantFonts" in font else font
        embedded = below["/FontDescriptor"].get_object()
        assert any(key in embedded for key in ("/FontFile", "/FontFile2", "/FontFile3"))


def test_pictures_of_the_pdf_have_their_words(studio: Studio, design: dict[str, Any]) -> None:
    raw = file(studio, design, "pdf")
    reader = PdfReader(io.BytesIO(raw))
    alts: list[str] = []

    def walk(node: Any) -> None:
        node = node.get_object() if hasattr(node, "get_object") else node
        if isinstance(node, list):
            for n in node:
                walk(n)
        elif isinstance(node, dict):
            if "/Alt" in node:
                alts.append(str(node["/Alt"]))
            if "/K" in node:
                walk(node["/K"])

    walk(reader.trailer["/Root"]["/StructTreeRoot"])
    said = " ".join(alts)
    for alt in ("Moth from behind", "Moth at step 1", "the eyes above R4 with 4 stitches between"):
        assert alt in said, alts


@pytest.mark.parametrize("ending", ["pdf", "html", "epub", "txt", "md"])
@pytest.mark.parametrize("language", ["en", "fr"])
def test_no_word_is_lost(studio: Studio, design: dict[str, Any], ending: str, language: str) -> None:
    tree = json.loads(file(studio, design, "json", language=language))
    raw = file(studio, design, ending, language=language)
    if ending == "pdf":
        text = " ".join(page.extract_text() for page in PdfReader(io.BytesIO(raw)).pages)
    elif ending == "epub":
        book = zipfile.ZipFile(io.BytesIO(raw))
        text = "".join(plain(book.read(f"book/{n}.xhtml").decode()) for n in ("cover", "pattern"))
    else:
        text = plain(raw.decode()) if ending == "html" else raw.decode()
    whole = squeezed(text).lower()
    lost = [w for w in words_of(tree, captions=ending in ("pdf", "html", "epub")) if squeezed(w).lower() not in whole]
    assert not lost


def plain(markup: str) -> str:
    """The text of HTML, with its entities read."""
    found: list[str] = []

    class Texts(HTMLParser):
        def handle_data(self, data: str) -> None:
            found.append(data)

    Texts().feed(markup)
    return " ".join(found)


def test_the_epub_keeps_the_rules_of_epub_3(studio: Studio, design: dict[str, Any]) -> None:
    """EPUB 3.3 (W3C Recommendation, 2023), sections 4.2 and 5: what a container and a package have to hold."""
    raw = file(studio, design, "epub", language="es")
    book = zipfile.ZipFile(io.BytesIO(raw))
    first = book.infolist()[0]
    assert (first.filename, first.compress_type, first.extra) == ("mimetype", zipfile.ZIP_STORED, b"")
    assert book.read("mimetype") == b"application/epub+zip"
    container = ElementTree.fromstring(book.read("META-INF/container.xml"))
    (root,) = container.iter("{urn:oasis:names:tc:opendocument:xmlns:container}rootfile")
    package = ElementTree.fromstring(book.read(root.attrib["full-path"]))
    opf, dc = "{http://www.idpf.org/2007/opf}", "{http://purl.org/dc/elements/1.1/}"
    assert package.attrib["version"] == "3.0"
    assert package.attrib["unique-identifier"] == "id"
    metadata = package.find(f"{opf}metadata")
    assert metadata is not None
    for needed in ("identifier", "title", "language"):
        assert metadata.findtext(f"{dc}{needed}"), needed
    assert metadata.findtext(f"{dc}language") == "es"
    modified = [m.text for m in metadata.iter(f"{opf}meta") if m.attrib.get("property") == "dcterms:modified"]
    assert len(modified) == 1
    assert re.fullmatch(r"\d{4}-\d\d-\d\dT\d\d:\d\d:\d\dZ", modified[0] or "")
    items = {i.attrib["id"]: i.attrib for i in package.iter(f"{opf}item")}
    assert len({i["href"] for i in items.values()}) == len(items)
    listed = {f"book/{i['href']}" for i in items.values()}
    assert listed == {n for n in book.namelist() if n.startswith("book/")} - {"book/package.opf"}
    assert [i["id"] for i in items.values() if i.get("properties") == "nav"] == ["nav"]
    spine = [r.attrib["idref"] for r in package.iter(f"{opf}itemref")]
    assert spine
    assert set(spine) <= set(items)
    for name in ("nav", "cover", "pattern"):
        page = ElementTree.fromstring(book.read(f"book/{name}.xhtml"))
        assert page.tag == "{http://www.w3.org/1999/xhtml}html"
        for image in page.iter("{http://www.w3.org/1999/xhtml}img"):
            assert image.attrib["alt"]
            source = image.attrib["src"]
            assert source.startswith("data:") or f"book/{source}" in listed
    ids = {e.attrib["id"] for e in ElementTree.fromstring(book.read("book/pattern.xhtml")).iter() if "id" in e.attrib}
    nav = ElementTree.fromstring(book.read("book/nav.xhtml"))
    ways = [a.attrib["href"] for a in nav.iter("{http://www.w3.org/1999/xhtml}a")]
    assert ways
    assert all(way.startswith("pattern.xhtml#") and way.partition("#")[2] in ids for way in ways)


def test_the_web_page_needs_nothing_else(studio: Studio, design: dict[str, Any]) -> None:
    page = file(studio, design, "html").decode()
    assert not re.search(r"""(?:src|href)="(?!data:|#)""", page)
    assert "<script" not in page
    assert "Fasten off &amp; leave a &lt;long&gt; tail." in page
    assert 'name="referrer" content="no-referrer"' in page


@pytest.mark.parametrize(("paper", "large", "wide", "least"), [("phone", "false", 90, 8.9), ("a4", "true", 210, 13.9)])
def test_papers_and_type(
    studio: Studio, design: dict[str, Any], paper: str, large: str, wide: float, least: float
) -> None:
    reader = PdfReader(io.BytesIO(file(studio, design, "pdf", paper=paper, large=large)))
    assert float(reader.pages[0].mediabox.width) == pytest.approx(wide / 25.4 * 72, abs=0.5)
    sizes: list[float] = []

    def seen(text: str, _: Any, matrix: Any, __: Any, size: float) -> None:
        if "Work" not in text and text.strip() and text.strip() in {"Materials", "A moth in a nightcap."}:
            sizes.append(abs(size * matrix[3]))

    for page in reader.pages:
        page.extract_text(visitor_text=seen)
    assert sizes
    assert min(sizes) >= least * 0.9


def test_templates_come_with_the_figure(studio: Studio, design: dict[str, Any]) -> None:
    got = studio.client.get(f"/api/designs/{design['id']}/templates.pdf?paper=letter")
    page = PdfReader(io.BytesIO(got.content)).pages[0]
    assert float(page.mediabox.width) == pytest.approx(8.5 * 72, abs=0.5)
    assert "Feltforwindow:12×8mm,cut1" in squeezed(page.extract_text())
    svg = studio.client.get(f"/api/designs/{design['id']}/templates.svg").content.decode()
    assert 'width="210mm"' in svg
    studio.ask("GET", f"/designs/{design['id']}/templates.svg?page=9", status=404)
    whole = PdfReader(io.BytesIO(file(studio, design, "pdf"))).pages
    assert "Printat100%" in squeezed(whole[-1].extract_text())


def test_a_picture_is_handed_out_by_its_key(studio: Studio, design: dict[str, Any]) -> None:
    path = f"/api/designs/{design['id']}/booklet/picture?key="
    got = studio.client.get(f"{path}figure:back")
    assert got["Content-Type"] == "image/png"
    assert Image.open(io.BytesIO(got.content)).size == (640, 640)
    assert studio.client.get(f"{path}step:step01").status_code == 200
    ready = studio.ask("GET", f"/designs/{design['id']}/booklet")["ready"]
    assert "figure:front" in ready
    assert f"after:{design['parts'][0]['key']}:8" in ready
    for wrong in ("nonsense", "figure:inside", "after:x", "step:gone"):
        assert studio.client.get(path + wrong).status_code in (409, 422)


def test_a_photograph_takes_the_place_of_a_rendered_picture(studio: Studio, design: dict[str, Any]) -> None:
    out = io.BytesIO()
    Image.new("RGB", (400, 200), "#77834b").save(out, "PNG")
    picture = upload(studio, design["id"], out.getvalue()).json()["id"]
    photo = {"key": "photo001", "picture": picture, "step": "step01", "alt": "Both ears", "wide": 0.5}
    page = {"page": "booklet", "base": design["revision"], "data": {"photos": [photo]}}
    studio.ask("PUT", f"/designs/{design['id']}/pages", page)
    tree = studio.ask("GET", f"/designs/{design['id']}/booklet")
    assembly = next(s for s in tree["sections"] if s["key"] == "assembly")
    assert assembly["blocks"][0]["pictures"][0] == [{"key": "photo:photo001", "alt": "Both ears", "caption": ""}]
    got = studio.client.get(f"/api/designs/{design['id']}/booklet/picture?key=photo:photo001")
    assert Image.open(io.BytesIO(got.content)).size == (200, 200)
    studio.client.delete(f"/api/designs/pictures/{picture}")
    again = studio.ask("GET", f"/designs/{design['id']}/booklet")
    shown = next(s for s in again["sections"] if s["key"] == "assembly")["blocks"][0]["pictures"][0]
    assert shown[0]["key"] == "step:step01", "what is gone is not promised"


def test_prose_is_translated_side_by_side(studio: Studio, design: dict[str, Any]) -> None:
    prose = studio.ask("GET", f"/designs/{design['id']}/prose")
    mine = [p["text"] for p in prose if not p["everyones"]]
    assert "A moth in a nightcap." in mine
    assert "scissors" not in mine
    told = [{"language": "fr", "source": "Take your time.", "text": "Prends ton temps."}]
    page = {"page": "booklet", "base": design["revision"], "data": {**design["booklet"], "translations": told}}
    made = studio.ask("PUT", f"/designs/{design['id']}/pages", page)
    text = file(studio, made, "txt", language="fr").decode()
    assert "Prends ton temps." in text
    assert "A moth in a nightcap. [non traduit]" in text
    assert "T1: 6 ms dans le cercle magique [6]" in text
    studio.ask("GET", f"/designs/{design['id']}/booklet?language=fr&edition=all", status=422)
    assert BALL.splitlines()[0] in file(studio, made, "txt").decode()


NAMES = {
    "Łucja Dvořáková Ősz": "latin-greek-cyrillic",
    "Привет Ежик": "latin-greek-cyrillic",
    "Καλημέρα": "latin-greek-cyrillic",
    "שלום": "hebrew",
    "साही": "devanagari",
    "เม่น": "thai",
    "ზღარბი": "georgian",
    "Ոզնի": "armenian",
    "고슴도치": "korean",
    "はりねずみ針": "japanese",
    "刺猬": "chinese",
}


@pytest.mark.parametrize(("name", "script"), NAMES.items())
def test_names_in_any_script_are_printed_with_our_own_fonts(
    studio: Studio, design: dict[str, Any], name: str, script: str
) -> None:
    studio.ask("PUT", f"/designs/{design['id']}", {"name": name, "terms": "us"})
    reader = PdfReader(io.BytesIO(file(studio, design, "pdf")))
    fonts = [f.get_object() for f in reader.pages[0]["/Resources"]["/Font"].values()]
    named = {str(f["/BaseFont"]).split("+")[-1] for f in fonts}
    assert named, "a page without fonts"
    assert all(re.match(r"Atkinson|Fraunces|Noto-?Sans|Work|Title|Script", n) for n in named), named
    assert any("Noto" in n or "Script" in n for n in named), f"{script} has no font on the page: {named}"
    assert squeezed(name.split(maxsplit=1)[0]) in squeezed(reader.pages[0].extract_text())


def test_every_script_has_its_files_and_they_hold_it() -> None:
    for script in SCRIPTS:
        for _, name in script.files():
            held = set(TTFont(FONTS / name).getBestCmap())
            assert sum(map(script.holds, held)) > 40, name
            assert {ord(c) for said, of in NAMES.items() if of == script.name for c in said if ord(c) > 0xFF} <= held, (
                name
            )
    for name, script in NAMES.items():
        assert script in [s.name for s in scripts_in(name)]
    assert scripts_in("Moth, Zoë’s café") == ()
    assert [s.name for s in scripts_in("はり刺猬")] == ["japanese", "chinese"], (
        "what Japanese lacks is taken from the other"
    )
