"""Photographs: what was sent is opened, turned upright, made small and written anew without what a camera notes with it."""

import base64
import hashlib
import io
import warnings
from dataclasses import dataclass

from PIL import Image, ImageOps

from millwright.errors import Problem, UnusableInput

MOST_SENT = 4_000_000  # letters of base64, three megabytes
MOST_A_JOB = 60
MOST_PIXELS = 40_000_000
LONGEST_SIDE = 1600
QUALITY = 82
FORMATS = ("JPEG", "PNG", "WEBP")
NO_PICTURE = "This is no picture that can be read here. Take it again; JPEG, PNG and WebP are read."
KEPT_HERE = "image/jpeg"


@dataclass(frozen=True, kw_only=True)
class Picture:
    """A photograph as it is kept: JPEG, at most ``LONGEST_SIDE`` pixels long."""

    content: bytes
    width: int
    height: int

    @property
    def sha256(self) -> str:
        """Of the bytes as they are kept."""
        return hashlib.sha256(self.content).hexdigest()


def take(sent: str) -> Picture:
    """A picture as a device sent it (base64), as it is kept. Raises `UnusableInput` at "image"."""
    picture = _opened(_decoded(sent))
    small = ImageOps.exif_transpose(picture).convert("RGB")
    small.thumbnail((LONGEST_SIDE, LONGEST_SIDE))
    written = io.BytesIO()
    small.save(written, "JPEG", quality=QUALITY)
    return Picture(content=written.getvalue(), width=small.width, height=small.height)


def kept_as(sent: str, sha256: str) -> bytes:
    """A picture out of a job's file: the very bytes that were kept. Raises `UnusableInput` where it is another one."""
    content = _decoded(sent)
    if hashlib.sha256(content).hexdigest() != sha256:
        raise UnusableInput(Problem("image", "This is not the picture that was entered."))
    _opened(content, ("JPEG",))
    return content


def _decoded(sent: str) -> bytes:
    if len(sent) > MOST_SENT:
        raise UnusableInput(Problem("image", f"This picture is over {MOST_SENT * 3 // 4_000_000} MB."))
    try:
        return base64.b64decode(sent, validate=True)
    except ValueError:
        raise UnusableInput(Problem("image", NO_PICTURE)) from None


def _opened(content: bytes, formats: tuple[str, ...] = FORMATS) -> Image.Image:
    try:
        with warnings.catch_warnings():
            warnings.simplefilter("error", Image.DecompressionBombWarning)
            picture = Image.open(io.BytesIO(content), formats=formats)
            if picture.width * picture.height > MOST_PIXELS:
                raise UnusableInput(
                    Problem("image", f"This picture has more than {MOST_PIXELS // 1_000_000} million points.")
                )
            picture.load()
    except (OSError, ValueError, SyntaxError, Image.DecompressionBombError, Image.DecompressionBombWarning):
        raise UnusableInput(Problem("image", NO_PICTURE)) from None
    return picture
