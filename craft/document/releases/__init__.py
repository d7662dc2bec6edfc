"""What a release freezes, how it is told from others, and what changed since: errata by part and round."""

from craft.document.releases.errata import Erratum, as_lines, errata
from craft.document.stamp import DIGEST_SHOWN, digest_of, stamp_of

__all__ = ["DIGEST_SHOWN", "Erratum", "as_lines", "digest_of", "errata", "stamp_of"]
