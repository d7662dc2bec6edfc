"""The bill of what is built into the pages, in CycloneDX, from npm's lock file.

Written with the format's own library and not by `npm sbom`, whose list leaves packages out that several others ask for,
React among them.
"""

from __future__ import annotations

import base64
import json
import sys
from collections.abc import Iterator
from pathlib import Path
from typing import Any

from cyclonedx.factory.license import LicenseFactory
from cyclonedx.model import HashAlgorithm, HashType
from cyclonedx.model.bom import Bom
from cyclonedx.model.component import Component, ComponentType
from cyclonedx.output.json import JsonV1Dot6
from packageurl import PackageURL


def built_in(lock: dict[str, Any]) -> Iterator[tuple[str, dict[str, Any]]]:
    """Names and entries of a lock file's packages that the built pages may hold; tools are left out."""
    for at, entry in lock["packages"].items():
        if at and not entry.get("dev"):
            yield at.rpartition("node_modules/")[2], entry


def component(name: str, entry: dict[str, Any]) -> Component:
    """A package with its licence and its digest."""
    group, _, own = name.rpartition("/")
    kind, _, digest = entry.get("integrity", "").partition("-")
    known = {"sha512": HashAlgorithm.SHA_512, "sha1": HashAlgorithm.SHA_1}
    hashes = [HashType(alg=known[kind], content=base64.b64decode(digest).hex())] if kind in known else []
    licences = [LicenseFactory().make_from_string(entry["license"])] if entry.get("license") else []
    purl = PackageURL("npm", group or None, own, entry["version"])
    return Component(
        type=ComponentType.LIBRARY,
        group=group or None,
        name=own,
        version=entry["version"],
        purl=purl,
        bom_ref=purl.to_string(),
        hashes=hashes,
        licenses=licences,
    )


def main(lock: str, to: str) -> None:
    """Write the bill of a lock file."""
    read = json.loads(Path(lock).read_text("utf-8"))
    parts = {(name, entry["version"]): entry for name, entry in built_in(read)}
    bill = Bom(components=[component(name, entry) for (name, _), entry in sorted(parts.items())])
    JsonV1Dot6(bill).output_to_file(to, allow_overwrite=True, indent=2)


if __name__ == "__main__":
    main(*sys.argv[1:])
