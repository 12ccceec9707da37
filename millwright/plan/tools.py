"""What is laid out before the work: every tool and every consumable that a step of this job names, and what it is for."""

import re
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from functools import lru_cache

from .fields import Field, tick
from .stages.receive import TOOLS_OUT
from .steps import BenchForm, SheetForm, Step

MOST_NAMED = 2


@dataclass(frozen=True, kw_only=True)
class Tool:
    """A tool, or something that is used up.

    ``named``    - how steps name it, in their line of tools
    ``asked``    - how their rows name it, where no line of tools does
    ``benches``  - readings that want it whatever is said
    """

    key: str
    label: str
    named: str = ""
    asked: str = ""
    benches: tuple[str, ...] = ()


TOOLS = (
    Tool(
        key="wrench_range",
        label="Torque wrench in calibration, its range over every torque on the card",
        named="torque wrench",
    ),
    Tool(
        key="sockets",
        label="Sockets, bits and second spanners for every head and nut",
        named="spanner|hex bit|hook or socket",
    ),
    Tool(key="micrometers", label="Micrometers, outside and inside", named="micrometers", benches=("fit",)),
    Tool(
        key="caliper",
        label="Caliper, depth gauge, inside rule",
        named="caliper|depth gauge|depth micrometer|inside rule|rule at",
    ),
    Tool(key="brass_feelers", label="Feelers of brass or plastic: none of steel", named="feelers of brass"),
    Tool(key="feelers", label="Feelers", named=r"feelers?\b(?! of brass)"),
    Tool(key="straightedge", label="Straightedge", named="straightedge"),
    Tool(key="dials", label="Dial gauges with a stiff bracket and a foot, or the laser", named=r"\bdials?\b|laser"),
    Tool(key="angle", label="Angle gauge, rule", named="angle gauge"),
    Tool(key="jacks", label="Jack screws at every foot; no bar", named="jack screws"),
    Tool(
        key="heater",
        label="Oven or induction heater, and a rack that keeps the hub off its floor; no open flame",
        named="heater",
    ),
    Tool(key="pyrometer", label="Surface pyrometer, thermometers", named="pyrometer|thermometer"),
    Tool(key="gloves", label="Heat gloves", named="heat gloves"),
    Tool(key="puller", label="Puller that fits, with the force this hub may want", named="puller"),
    Tool(key="blue", label="Thin layout blue", named="layout blue"),
    Tool(
        key="sling",
        label="Slings and hoist for the weight it has: look it up before it hangs",
        named="sling|hoist|lifting gear",
    ),
    Tool(key="props", label="Blocks and props", named="blocks|props"),
    Tool(key="hammer", label="Soft mallet, soft drift; no steel face", named="mallet|soft hammer|soft-faced|soft drift"),
    Tool(key="blade", label="Flat blade; what parts it, by its manual", named="flat blade"),
    Tool(
        key="non_magnetic",
        label="Bench of wood or aluminium; tools of brass or plastic",
        named="wood or aluminium|wooden blocks",
    ),
    Tool(key="seal_driver", label="Seal driver", named="seal driver"),
    Tool(key="grease_gun", label="Grease gun", named="grease gun"),
    Tool(key="fence", label="Fence or guard for a bare shaft", named="fence or guard"),
    Tool(key="strobe", label="Strobe lamp", asked="where the lamp goes|by strobe"),
    Tool(key="torch", label="Torch, mirror", named="torch|mirror"),
    Tool(
        key="marker",
        label="Marker, chalk, camera",
        named="marker|chalk|camera",
        asked="marks made|marked on one end|position marked|marked across",
    ),
    Tool(key="box", label="Marked boxes for what comes off", named="marked box|box for the scrap", asked="marked box"),
    Tool(key="dressing", label="Fine file, abrasive strip", named="fine file|abrasive|scraper"),
    Tool(key="cloth", label="Non-flammable solvent, lint-free cloth", named="solvent|cloth"),
    Tool(
        key="shims",
        label="Clean shims, every thickness of the box",
        named="shims",
        benches=("softfoot", "alignment", "airgap"),
    ),
    Tool(
        key="grease",
        label="Grease of the kind the card names, enough for one filling",
        named="grease the maker",
        asked="^grease (the kind|and its)|thin grease on",
    ),
    Tool(key="paste", label="Mounting paste, for the keyed fits only", asked="mounting paste|paste"),
    Tool(key="sealant", label="Sealant in date", asked="sealant"),
    Tool(key="adhesive", label="Thread adhesive in date, where the card asks for it", asked="adhesive"),
    Tool(key="oil", label="Thin oil", asked="thin oil|oiled"),
    Tool(key="gear_oil", label="Gear oil for what runs out", asked="oil back to|oil let down|filled to its level"),
)


def laid_out(steps: Sequence[Step]) -> tuple[Step, ...]:
    """The same steps; the one where tools are laid out asks for what the others name."""
    used = list(_used(steps))
    return tuple(_with(step, used) if step.key == TOOLS_OUT else step for step in steps)


def _with(step: Step, used: list[Field]) -> Step:
    form = step.form
    return replace(step, form=replace(form, fields=(*used, *form.fields))) if isinstance(form, SheetForm) else step


def _used(steps: Sequence[Step]) -> Iterator[Field]:
    wanted: dict[str, list[str]] = {}
    for step in steps:
        for key in _wanted_by(*_said(step)) if step.key != TOOLS_OUT else ():
            wanted.setdefault(key, []).append(step.title)
    for tool in TOOLS:
        if tool.key in wanted:
            titles = list(dict.fromkeys(wanted[tool.key]))
            more = len(titles) - MOST_NAMED
            said = [*titles[:MOST_NAMED], *([f"and {more} more"] if more > 0 else [])]
            yield tick(tool.key, tool.label, f"for: {'; '.join(said)}")


def _said(step: Step) -> tuple[str, str, str]:
    """Its line of tools, what its rows say, its bench."""
    match step.form:
        case SheetForm(fields=rows):
            return step.tool, "\n".join(f"{row.label} {row.detail}" for row in rows), ""
        case BenchForm(bench=bench):
            return step.tool, "", bench
        case _:
            return step.tool, "", ""


@lru_cache(4096)  # every route says mostly the same
def _wanted_by(tools: str, rows: str, bench: str) -> tuple[str, ...]:
    return tuple(
        tool.key
        for tool in TOOLS
        if bench in tool.benches
        or (tool.named and re.search(tool.named, tools, re.IGNORECASE))
        or (tool.asked and re.search(tool.asked, rows, re.IGNORECASE | re.MULTILINE))
    )
