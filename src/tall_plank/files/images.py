"""Images that are read into a job: checked, made smaller where they are large, kept as PNG or JPEG."""

from __future__ import annotations

import io
from dataclasses import dataclass
from pathlib import Path

from tall_plank.measure import PlankError

MAX_FILE = 60_000_000
MAX_PIXELS = 100_000_000
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
    try:
        if path.stat().st_size > MAX_FILE:
            raise PlankError("The image is too large.", name, "Save it smaller, up to 60 MB.")
        with Pillow.open(path, formats=("PNG", "JPEG", "TIFF", "BMP", "GIF", "WEBP")) as opened:
            if opened.width * opened.height > MAX_PIXELS:
                raise PlankError("The image has too many pixels.", name, "Save it smaller.")
            picture = ImageOps.exif_transpose(opened).convert("RGBA")
    except UnidentifiedImageError:
        raise PlankError("This is no image that can be read.", name, "Save it as PNG or JPEG.") from None
    except OSError as error:
        raise PlankError(f"The image cannot be read ({error.strerror or error}).", name, "Check the file.") from None
    except (ValueError, SyntaxError, Pillow.DecompressionBombError):
        raise PlankError("The image is damaged.", name, "Save it again as PNG or JPEG.") from None
    # Transparent pixels are paper.
    flat = Pillow.new("RGB", picture.size, "white")
    flat.paste(picture, mask=picture.getchannel("A"))
    flat.thumbnail((most, most))
    if min(flat.size) < 2:
        raise PlankError("The image is too small.", name, "Choose another one.")
    buffer = io.BytesIO()
    flat.save(buffer, "JPEG", quality=85)
    return Image(flat.width, flat.height, buffer.getvalue())
