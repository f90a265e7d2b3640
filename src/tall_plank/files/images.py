"""Images that are read into a job: checked, made smaller where they are large, kept as PNG or JPEG."""

from __future__ import annotations

import io
from dataclasses import dataclass
from pathlib import Path

from tall_plank.formats.door import bytes_of, through
from tall_plank.measure import PlankError

MAX_FILE = 60_000_000
MAX_PIXELS = 40_000_000
MOST = 2400
"""Pixels on the longer side that are kept."""


@dataclass(frozen=True)
class Image:
    """An image file's bytes with its size in pixels."""

    wide: int
    high: int
    data: bytes


def read_image(path: Path, most: int = MOST) -> Image:
    """Read an image; its longer side keeps `most` pixels at most.

    Raises
    ------
    PlankError for a file that is missing, too large or no image
    """
    from PIL import Image as Pillow
    from PIL import ImageOps, UnidentifiedImageError

    name = path.name
    with through(name, "image", "Save it again as PNG or JPEG."):
        data = bytes_of(path, MAX_FILE, "image")
        try:
            with Pillow.open(io.BytesIO(data), formats=("PNG", "JPEG", "TIFF", "BMP", "GIF", "WEBP")) as opened:
                # JPEGs are read no larger than they are needed.
                opened.draft("RGB", (most, most))
                if opened.width * opened.height > MAX_PIXELS:
                    raise PlankError("The image has too many pixels.", name, "Save it smaller.")
                picture = ImageOps.exif_transpose(opened)
                if picture.mode in ("1", "P"):  # colors from a table have none between them
                    picture = picture.convert("RGBA")
                picture.thumbnail((most, most))
                picture = picture.convert("RGBA")
        except UnidentifiedImageError:
            raise PlankError("This is no image that can be read.", name, "Save it as PNG or JPEG.") from None
        # Transparent pixels are paper.
        flat = Pillow.new("RGB", picture.size, "white")
        flat.paste(picture, mask=picture.getchannel("A"))
    if min(flat.size) < 2:
        raise PlankError("The image is too small.", name, "Choose another one.")
    buffer = io.BytesIO()
    flat.save(buffer, "JPEG", quality=85)
    return Image(flat.width, flat.height, buffer.getvalue())
