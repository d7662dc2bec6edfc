"""The file of a backup: rows as JSON, pictures as they are, and a list of all of it with checksums."""

from __future__ import annotations

import hashlib
import io
import json
import os
import tarfile
import time
from dataclasses import dataclass
from pathlib import Path, PurePosixPath

from studio.backups.tables import Record, broken_references
from studio.backups.upgrades import FORMAT, STEPS

PICTURES = "pictures/"


class BackupError(Exception):
    """A backup that cannot be written or read, in one sentence."""


@dataclass(frozen=True, slots=True)
class Archive:
    """What a backup holds. pictures: bytes by the name under which they are kept."""

    records: list[Record]
    pictures: dict[str, bytes]

    def check(self) -> None:
        """BackupError when a row points at nothing, or a picture's file is missing."""
        broken = broken_references(self.records)
        kept = set(self.pictures)
        broken += [
            f"the file of picture {r['pk']} is missing"
            for r in self.records
            if r["model"] == "designs.picture" and r["fields"]["file"] not in kept
        ]
        if broken:
            more = f" (and {len(broken) - 1} more)" if len(broken) > 1 else ""
            raise BackupError(f"The backup is not whole: {broken[0]}{more}.")


def write(archive: Archive, path: Path, stamp: str) -> None:
    """Write a checked archive, for its owner's eyes only; what was there is replaced only when all is written."""
    archive.check()
    partial = path.with_name(path.name + ".part")
    data = json.dumps(archive.records, ensure_ascii=False).encode()
    bodies = {"data.json": data, **{PICTURES + name: body for name, body in sorted(archive.pictures.items())}}
    sums = {name: hashlib.sha256(body).hexdigest() for name, body in bodies.items()}
    listing = json.dumps({"format": FORMAT, "made": stamp, "sha256": sums}).encode()
    try:
        partial.unlink(missing_ok=True)
        with os.fdopen(os.open(partial, os.O_WRONLY | os.O_CREAT | os.O_EXCL, 0o600), "wb") as raw:
            with tarfile.open(fileobj=raw, mode="w:gz") as tar:
                for name, body in {**bodies, "manifest.json": listing}.items():
                    info = tarfile.TarInfo(name)
                    info.size, info.mtime, info.mode = len(body), int(time.time()), 0o600
                    tar.addfile(info, io.BytesIO(body))
            raw.flush()
            os.fsync(raw.fileno())
        partial.replace(path)
    except OSError as error:
        partial.unlink(missing_ok=True)
        raise BackupError(f"The backup could not be written: {error.strerror or error}.") from None


def read(path: Path) -> Archive:
    """A backup of this format or an earlier one, checked in full; BackupError says what is wrong with it."""
    listing, files = _files(path)
    given = listing.get("format")
    if not isinstance(given, int) or not 1 <= given <= FORMAT:
        raise BackupError(f"{path} is a backup of another format (this Spirrel reads up to {FORMAT}).")
    try:
        records = json.loads(files["data.json"])
        for step in STEPS[given - 1 :]:
            records = step(records)
        pictures = {n.removeprefix(PICTURES): body for n, body in files.items() if n.startswith(PICTURES)}
        archive = Archive(records, pictures)
        archive.check()
    except (ValueError, KeyError, TypeError, AttributeError) as error:
        raise BackupError(f"{path} is damaged: its rows cannot be read ({error}).") from None
    return archive


def _files(path: Path) -> tuple[dict[str, object], dict[str, bytes]]:
    """The listing and every file of a backup; all that is listed is there unaltered, and nothing else."""
    try:
        with tarfile.open(path, "r:gz") as tar:
            members = tar.getmembers()
            if any(not m.isfile() for m in members) or len({m.name for m in members}) != len(members):
                raise BackupError(f"{path} holds more than plain files.")
            files = {m.name: body.read() for m in members if (body := tar.extractfile(m)) is not None}
        listing = json.loads(files.pop("manifest.json"))
        sums = dict(listing["sha256"])
    except (OSError, tarfile.TarError, KeyError, ValueError, TypeError, EOFError) as error:
        raise BackupError(f"{path} is no backup that can be read ({error}).") from None
    for name in files:
        if ".." in PurePosixPath(name).parts or PurePosixPath(name).is_absolute():
            raise BackupError(f"{path} names files outside its own folder.")
        if name not in sums:
            raise BackupError(f"{path} was altered: {name} is not on its list.")
    for name, expected in sums.items():
        if name not in files or hashlib.sha256(files[name]).hexdigest() != expected:
            raise BackupError(f"{path} is damaged: {name} is not what was written.")
    return listing, files
