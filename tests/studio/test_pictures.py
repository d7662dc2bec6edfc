"""Reference pictures: re-encoded, limited, private."""

from __future__ import annotations

import io
import zlib
from typing import Any

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from PIL import Image, ImageCms
from PIL.PngImagePlugin import PngInfo

from studio.designs.models import Picture
from tests.studio.conftest import Studio


def picture(kind: str = "PNG", size: tuple[int, int] = (60, 40), **more: Any) -> bytes:
    out = io.BytesIO()
    Image.new("RGB", size, "#aa7744").save(out, kind, **more)
    return out.getvalue()


def upload(studio: Studio, design: int, raw: bytes, name: str = "moth.png") -> Any:
    return studio.client.post(f"/api/designs/{design}/pictures", {"file": SimpleUploadedFile(name, raw)})


@pytest.mark.parametrize("kind", ["PNG", "JPEG", "WEBP"])
def test_pictures_are_written_anew(
    studio: Studio, other: Studio, kind: str, django_capture_on_commit_callbacks: Any
) -> None:
    made = studio.design()
    exif = Image.Exif()
    exif[0x010E] = "my kitchen table, 12 Hedge Lane"
    profile = ImageCms.ImageCmsProfile(ImageCms.createProfile("sRGB")).tobytes()
    said = {"exif": exif, "icc_profile": profile}
    if kind == "JPEG":
        said["comment"] = b"Hedge Lane, from the telephone of Fern"
    if kind == "PNG":
        words = PngInfo()
        words.add_text("Comment", "Hedge Lane", zip=False)
        said = {"pnginfo": words, "icc_profile": profile}
    raw = picture(kind, (3000, 1000), **said)
    assert b"Hedge Lane" in raw
    got = upload(studio, made["id"], raw)
    assert got.status_code == 201
    assert (got.json()["width"], got.json()["height"]) == (2000, 667)
    served = studio.client.get(got.json()["url"])
    body = b"".join(served.streaming_content)  # type: ignore[attr-defined]
    assert b"Hedge Lane" not in body
    with Image.open(io.BytesIO(body)) as kept:
        assert not {"exif", "icc_profile", "comment", "Comment", "xmp"} & set(kept.info)
        assert len(kept.getexif()) == 0
    assert served["X-Content-Type-Options"] == "nosniff"
    assert "sandbox" in served["Content-Security-Policy"]
    other.ask("GET", got.json()["url"].removeprefix("/api"), status=404)
    other.ask("DELETE", got.json()["url"].removeprefix("/api"), status=404)
    path = Picture.objects.get().file.path
    with django_capture_on_commit_callbacks(execute=True):
        studio.ask("DELETE", got.json()["url"].removeprefix("/api"), status=204)
    with pytest.raises(FileNotFoundError):
        open(path, "rb")  # noqa: SIM115


def bomb() -> bytes:
    """A PNG that claims to be enormous."""
    raw = bytearray(picture())
    raw[16:24] = (60_000).to_bytes(4, "big") * 2
    raw[29:33] = zlib.crc32(raw[12:29]).to_bytes(4, "big")
    return bytes(raw)


@pytest.mark.parametrize(
    "raw",
    [
        b"",
        b"not a picture",
        b"<svg xmlns='http://www.w3.org/2000/svg'><script/></svg>",
        picture()[:60],
        bomb(),
        picture("GIF"),
        b"\xff\xd8\xff" + b"\0" * 5000,
    ],
)
def test_what_is_no_picture_is_refused(studio: Studio, raw: bytes) -> None:
    made = studio.design()
    got = upload(studio, made["id"], raw)
    assert got.status_code == 422
    assert got.json()["detail"]
    assert not Picture.objects.exists()


def test_too_large_is_refused(studio: Studio) -> None:
    made = studio.design()
    assert "10 MB" in upload(studio, made["id"], b"\x89PNG" + b"\0" * (10 * 2**20)).json()["detail"]


def test_names_of_files_do_not_matter(studio: Studio) -> None:
    made = studio.design()
    assert upload(studio, made["id"], picture(), "../../etc/passwd").status_code == 201
    assert "passwd" not in Picture.objects.get().file.name
