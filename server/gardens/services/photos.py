"""Photos of the log: looked at, made smaller, freed of what they tell besides the picture, kept once."""

from __future__ import annotations

import base64
import binascii
import datetime as dt
import hashlib
import io
import warnings
from collections.abc import Sequence

from ascent.errors import InvalidPlan, Problem
from django.db import IntegrityError, transaction
from django.http import Http404
from django.utils import timezone
from PIL import Image, ImageOps

from ..models import Garden, LogEntry, Photo

MOST_PHOTOS = 3000  # of one garden
MOST_BYTES = 3_000_000  # of one, as it is sent
_FORMATS = ("JPEG", "PNG", "WEBP")
_MOST_PIXELS = 40_000_000
_LARGE, _SMALL = 1600, 320  # longest side [pixels]
_QUALITY = 82
_JFIF = 14  # bytes of a segment that says nothing but the resolution
_BARE = {"jfif", "jfif_version", "jfif_unit", "jfif_density", "dpi", "progressive", "progression"}
_UNUSED_FOR = dt.timedelta(days=30)  # that a photo of no entry is kept: an undo may want it back
_ALLOWED = "a photo as JPEG, PNG or WebP, up to 3 MB and 40 million pixels, is allowed"


def keep(garden: Garden, pictures: Sequence[str], where: str) -> tuple[str, ...]:
    """Keep photos of a garden and return their digests; one that is there already is kept once.

    They are turned upright, scaled, and written anew, so that neither a place nor anything else that a camera
    writes in a file is kept.

    Args:
        garden: Theirs.
        pictures: Files in base64.
        where: The path of the field that they were sent in.

    Raises:
        InvalidPlan: One is no photo, or too large, or there are too many.
    """
    return tuple(_kept(garden, picture, f"{where}[{number}]") for number, picture in enumerate(pictures))


def _kept(garden: Garden, picture: str, where: str) -> str:
    try:
        content = base64.b64decode(picture, validate=True)
    except (binascii.Error, ValueError) as error:
        raise InvalidPlan([Problem(where, "no base64", _ALLOWED)]) from error
    return keep_file(garden, content, where)


def keep_file(garden: Garden, content: bytes, where: str) -> str:
    """Keep a photo that is a file, and return its digest; one as this app writes it keeps its own.

    Raises:
        InvalidPlan: It is no photo, or too large, or there are too many.
    """
    image = _opened(content, where)
    large, small = _scaled(image, _LARGE), _scaled(image, _SMALL)
    written = content if _as_written_here(content) else _written(large)
    sha = hashlib.sha256(written).hexdigest()
    if Photo.objects.filter(garden=garden, sha=sha).exists():
        return sha
    if Photo.objects.filter(garden=garden).count() >= MOST_PHOTOS:
        allowed = f"{MOST_PHOTOS} photos in one garden are allowed; delete entries with photos first"
        raise InvalidPlan([Problem(where, str(MOST_PHOTOS), allowed)])
    try:
        with transaction.atomic():
            Photo.objects.create(
                garden=garden,
                sha=sha,
                width=large.width,
                height=large.height,
                large=written,
                small=_written(small),
            )
    except IntegrityError:  # the same one came twice at once
        if not Photo.objects.filter(garden=garden, sha=sha).exists():
            raise
    return sha


def _opened(content: bytes, where: str) -> Image.Image:
    """Return the picture that a file holds, by what is in it, whatever it is called."""
    if len(content) > MOST_BYTES:
        raise InvalidPlan([Problem(where, f"{len(content)} bytes", _ALLOWED)])
    try:
        with warnings.catch_warnings():
            warnings.simplefilter("error", Image.DecompressionBombWarning)
            image = Image.open(io.BytesIO(content), formats=_FORMATS)
            if image.width * image.height > _MOST_PIXELS:
                raise InvalidPlan([Problem(where, f"{image.width} × {image.height} pixels", _ALLOWED)])
            image.load()
    except InvalidPlan:
        raise
    except Exception as error:  # a decoder may fail in any way at what somebody made up
        raise InvalidPlan([Problem(where, "a file that is no picture", _ALLOWED)]) from error
    return ImageOps.exif_transpose(image).convert("RGB")


def _as_written_here(content: bytes) -> bool:
    """Return whether a file is a JPEG of no more than we keep, with nothing in it besides the picture."""
    image = Image.open(io.BytesIO(content))
    bare = set(image.info) <= _BARE and not image.getexif()
    segments = [(name, len(body)) for name, body in getattr(image, "applist", [])]
    return (
        image.format == "JPEG"
        and image.mode == "RGB"
        and max(image.size) <= _LARGE
        and bare
        and segments == [("APP0", _JFIF)]  # neither a comment nor a thumbnail
        and content.endswith(b"\xff\xd9")
    )


def _scaled(image: Image.Image, longest: int) -> Image.Image:
    copy = image.copy()
    copy.thumbnail((longest, longest))
    return copy


def _written(image: Image.Image) -> bytes:
    handle = io.BytesIO()
    bare = Image.new("RGB", image.size)
    bare.paste(image)
    bare.save(handle, "JPEG", quality=_QUALITY, optimize=True)
    return handle.getvalue()


def photo(garden: Garden, sha: str, small: bool) -> bytes:
    """Return a photo of a garden, or the small one for lists.

    Raises:
        Http404: The garden has none of that digest.
    """
    field = "small" if small else "large"
    found = Photo.objects.filter(garden=garden, sha=sha).values_list(field, flat=True).first()
    if found is None:
        raise Http404
    return bytes(found)


def purge_unused() -> int:
    """Delete photos that no entry has shown for a while, and return how many."""
    gone = 0
    old = Photo.objects.filter(added__lt=timezone.now() - _UNUSED_FOR).values_list("pk", "garden_id", "sha")
    shown: dict[int, set[str]] = {}
    for pk, garden, sha in old:
        if garden not in shown:
            lists = LogEntry.objects.filter(garden_id=garden).values_list("document__photos", flat=True)
            shown[garden] = {each for photos in lists for each in photos or ()}
        if sha not in shown[garden]:
            gone += Photo.objects.filter(pk=pk).delete()[0]
    return gone
