"""Which instruments read what: asked by their name, so that what a bad one read can be found again."""

from collections.abc import Mapping

READ_WITH: Mapping[str, tuple[str, ...]] = {
    "alignment": ("dial", "laser"),  # its bracket is chosen with its sag
    "runout": ("dial",),
    "softfoot": ("dial",),
    "fit": ("micrometer",),
    "key": ("micrometer",),
    "taper": ("micrometer",),
    "gap": ("micrometer",),
    "heat": ("pyrometer",),
}
