"""Where a structure stands, and what stands there, without all that a season does not hang on."""

from __future__ import annotations

from .model import BareBed, Bed, Garden, Place, Site, Structure


def plain_site(garden: Garden, bed: Bed) -> Site:
    """Return where a structure stands, nothing of what else stands in the garden with it."""
    place = Place.model_validate({name: getattr(garden, name) for name in Place.model_fields})
    return Site(
        garden=place, bed=BareBed.model_validate({name: getattr(bed, name) for name in BareBed.model_fields})
    )


def untaught(site: Site, keep: str = "") -> Site:
    """Return a site as the tables have it, with nothing that a log taught, but for one key that is kept."""
    kept = tuple(each for each in site.garden.taught if each.key == keep)
    return site.model_copy(update={"garden": site.garden.model_copy(update={"taught": kept})})


def as_it_stands(structure: Structure) -> Structure:
    """Return a structure as it stands, with what grows on it by its plan, nothing taken from the shed for
    it.
    """
    built = structure.built
    own = {"options": built.options, "family": built.family} if built else {}
    return structure.model_copy(update={**own, "taken": (), "built": None})
