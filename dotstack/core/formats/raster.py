"""Pictures made of pixels: PNG and JPEG files as they come, and as they are kept."""

from dataclasses import dataclass
from hashlib import sha256
from io import BytesIO
from typing import Literal, TypeAlias

from PIL import Image, ImageOps, UnidentifiedImageError

from dotstack.core.errors import FormatError, LimitError

Media: TypeAlias = Literal["image/png", "image/jpeg"]

MAX_BYTES = 40_000_000
MAX_PIXELS = 60_000_000
# As pixels are before they are packed, and what a file has around them.
_BYTES_A_PIXEL, _ALWAYS = 4, 2**16
# Beyond this no more of a picture is seen behind a mark, and every look at it is slow.
_KEPT_SIDE = 3000
_QUALITY = 92
_MEDIA: dict[str | None, Media] = {"PNG": "image/png", "JPEG": "image/jpeg"}
_WHAT = "the picture"


@dataclass(frozen=True, slots=True)
class Raster:
    """A picture as it is kept: the bytes of its file, and its sides in pixels."""

    data: bytes
    media: Media
    width: int
    height: int

    @property
    def digest(self) -> str:
        """What the picture is known by: the SHA-256 of its bytes, in hexadecimal."""
        return sha256(self.data).hexdigest()


def read_raster(data: bytes) -> Raster:
    """The picture of a PNG or JPEG file, upright, without what else the file tells.

    A picture of more than 3000 pixels across or down is made smaller. Raises FormatError or
    LimitError.
    """
    image = _decoded(data)
    media = _MEDIA[image.format]
    upright = ImageOps.exif_transpose(image)
    upright.thumbnail((_KEPT_SIDE, _KEPT_SIDE), Image.Resampling.LANCZOS)
    made = BytesIO()
    if media == "image/png":
        mode = "RGBA" if upright.has_transparency_data else "RGB"
        upright.convert(mode).save(made, format="PNG")
    else:
        upright.convert("RGB").save(made, format="JPEG", quality=_QUALITY)
    return Raster(made.getvalue(), media, *upright.size)


def checked_raster(data: bytes) -> Raster:
    """A picture whose bytes are kept as they are; raises FormatError or LimitError."""
    image = _decoded(data)
    if len(data) > _BYTES_A_PIXEL * image.width * image.height + _ALWAYS:
        raise FormatError(_WHAT, "its file holds far more than a picture")
    return Raster(data, _MEDIA[image.format], *image.size)


def _decoded(data: bytes) -> Image.Image:
    if len(data) > MAX_BYTES:
        raise LimitError("bytes of a picture", len(data), MAX_BYTES)
    try:
        image = Image.open(BytesIO(data), formats=("PNG", "JPEG"))
        pixels = image.width * image.height
        if pixels > MAX_PIXELS:
            raise LimitError("pixels of a picture", pixels, MAX_PIXELS)
        image.load()
    except (Image.DecompressionBombError, Image.DecompressionBombWarning) as error:
        raise FormatError(_WHAT, f"it has more than {MAX_PIXELS} pixels") from error
    except UnidentifiedImageError as error:
        raise FormatError(_WHAT, "it is neither PNG nor JPEG") from error
    except LimitError:
        raise
    except Exception as error:
        # The decoder's errors are of many kinds, and all say that the file is damaged.
        raise FormatError(_WHAT, "its file is damaged or was cut off") from error
    return image
