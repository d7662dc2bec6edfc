"""Run as a process of its own, with limits set by its parent: a picture in, the same written anew out.

Standard input: PNG, JPEG or WebP. Arguments: most pixels, largest side. Standard output: a line with
kind, width and height, then the bytes. Exit 1 when it is no picture. Imports nothing of the studio.
"""

import io
import sys

from PIL import Image, ImageCms, ImageOps


def _in_common_colours(image: Image.Image) -> Image.Image:
    """The picture in sRGB, as its profile is not kept; as it is where it has none, or one that cannot be read."""
    profile = image.info.get("icc_profile")
    if not profile or image.mode not in ("RGB", "RGBA"):
        return image
    try:
        return ImageCms.profileToProfile(image, io.BytesIO(profile), ImageCms.createProfile("sRGB")) or image
    except ImageCms.PyCMSError:
        return image


def main() -> int:
    """Decode, turn upright, shrink, encode without metadata."""
    most_pixels, largest_side = int(sys.argv[1]), int(sys.argv[2])
    Image.MAX_IMAGE_PIXELS = most_pixels
    try:
        with Image.open(io.BytesIO(sys.stdin.buffer.read()), formats=("PNG", "JPEG", "WEBP")) as opened:
            if opened.width * opened.height > most_pixels:
                return 1
            upright = _in_common_colours(ImageOps.exif_transpose(opened))
            clear = upright.mode in ("RGBA", "LA", "PA") or "transparency" in upright.info
            image = upright.convert("RGBA" if clear else "RGB")
            image.thumbnail((largest_side, largest_side))
            # Comments, profiles, places and serial numbers stand here, and would be written again.
            image.info.clear()
    except Exception:
        return 1  # a hostile file may raise anything; the answer is the same
    out = io.BytesIO()
    image.save(out, "PNG" if clear else "JPEG", **({} if clear else {"quality": 88}))
    sys.stdout.buffer.write(f"{'png' if clear else 'jpg'} {image.width} {image.height}\n".encode() + out.getvalue())
    return 0


if __name__ == "__main__":
    sys.exit(main())
