"""Every coupling family by its name, with the procedures it has had. Add a family here."""

from dataclasses import dataclass

from ..procedure import Procedure
from . import (
    claw,
    conveyor,
    disc_drop_out,
    disc_single,
    disc_three_part,
    flywheel_tyre,
    gear,
    jaw,
    magnetic,
    reducer,
    rigid,
    shear_jaw,
    steel_grid,
    tube,
    tyre,
)
from .facts import FamilyFacts


@dataclass(frozen=True, kw_only=True)
class CouplingFamily:
    """A family: its facts, and every version of its procedure, the newest last."""

    facts: FamilyFacts
    procedures: tuple[Procedure, ...]

    def procedure(self, version: int | None = None) -> Procedure:
        """The one of that version: where it is gone, the nearest there is; the newest where none is named."""
        if version is None:
            return self.procedures[-1]
        return min(self.procedures, key=lambda one: (abs(one.version - version), -one.version))

    @property
    def newest(self) -> int:
        """The version a job that starts now is done by."""
        return self.procedures[-1].version


FAMILIES: dict[str, CouplingFamily] = {
    facts.family: CouplingFamily(facts=facts, procedures=procedures)
    for facts, procedures in (
        (jaw.STRAIGHT, jaw.PROCEDURES),
        (jaw.CURVED, jaw.PROCEDURES),
        (shear_jaw.FACTS, shear_jaw.PROCEDURES),
        (steel_grid.FACTS, steel_grid.PROCEDURES),
        (gear.FACTS, gear.PROCEDURES),
        (disc_single.FACTS, disc_single.PROCEDURES),
        (disc_three_part.FACTS, disc_three_part.PROCEDURES),
        (disc_drop_out.FACTS, disc_drop_out.PROCEDURES),
        (tube.FACTS, tube.PROCEDURES),
        (tyre.FACTS, tyre.PROCEDURES),
        (flywheel_tyre.FACTS, flywheel_tyre.PROCEDURES),
        (claw.FACTS, claw.PROCEDURES),
        (rigid.FACTS, rigid.PROCEDURES),
        (conveyor.FACTS, conveyor.PROCEDURES),
        (reducer.FACTS, reducer.PROCEDURES),
        (magnetic.FACTS, magnetic.PROCEDURES),
    )
}
