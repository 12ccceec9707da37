"""Inputs of a bench or sheet as plain lines for a record: what was read, where, in which unit."""

from collections.abc import Callable, Iterator, Mapping
from typing import Any

from .benches.backstop import WAY_WORDS
from .bolt_order import name_on_circles
from .clock import arc_deg, different_positions, say_clock
from .say import Figure, Words, joined, words

# Beside a reading for comparison: each stands in full in an entry of its own.
COMPARED = frozenset({"before", "before_is", "warm", "made", "as_left", "said_before"})
MOST_LISTED = 16  # readings of a ring, one a line; more are a sweep
PLACES = "_at"  # beside "shaft_mm" stands "shaft_at": where each of its figures was taken
UNITS = {
    "_mm_per_m": "mm/m",
    "_mm_per_s": "mm/s",
    "_mm": "mm",
    "_nm": "N·m",
    "_deg": "°",
    "_rpm": "rpm",
    "_c": "°C",
    "_kw": "kW",
    "_w_m2_k": "W/m²K",
    "_s": "s",
    "_share": "",
}


def lines(inputs: Mapping[str, Any], skip: frozenset[str] = frozenset()) -> list[tuple[str, str, Words]]:
    """(path, label, value with unit) of every figure in the inputs, in their order; ``skip`` names top-level keys.

    >>> shown = lambda *given: [(path, label, str(value)) for path, label, value in lines(*given)]

    >>> shown({"readings": [{"clock": 90, "value_mm": 0.05}], "diameter_mm": 160.0})
    [('readings.0.value_mm', "3 o'clock", '0.05 mm'), ('diameter_mm', 'diameter', '160 mm')]
    >>> shown({"pulls": [{"pass": 2, "bolt": 3, "reached_nm": 35.0, "moved": False}], "before": [1, 2]})
    [('pulls.0', 'pass 2, bolt 3', '35 N·m, did not turn')]
    >>> shown({"pulls": [{"pass": 1, "bolt": 1, "reached_nm": 35.0, "reached_is": "wrench", "slackened": True}]})
    [('pulls.0', 'pass 1, bolt 1', '35 N·m on the wrench, slackened first')]
    >>> shown({"pulls": [{"pass": 1, "bolt": 2, "turned": True, "clicked": False}]})
    [('pulls.2', 'bolt 2', 'round 1 half a turn')]
    >>> turned = [{"pass": 1, "bolt": bolt, "turned": True, "clicked": True} for bolt in (2, 9)]
    >>> shown({"bolts": 8, "beside": {"torque_nm": 60}, "pulls": turned})[-2:]
    [('pulls.2', 'bolt A2', 'round 1 clicked'), ('pulls.9', 'bolt B1', 'round 1 clicked')]
    >>> shown({"log": [{"hole": 1, "to": "in"}, {"hole": 1, "to": "drawn bare"}]})
    [('log.1', 'hole 1', 'in, drawn bare')]
    >>> shown({"wrench": {"name": "W3", "max_nm": 200.0}})
    [('wrench.max_nm', 'wrench W3, max', '200 N·m')]
    >>> shown({"readings": [{"clock": 0, "value_mm": 8.1}], "ends": ["fan end", "pump end"]}, frozenset({"ends"}))
    [('readings.0.value_mm', "fan end 12 o'clock", '8.1 mm')]
    >>> shown({"feet": [{"name": "motor tail", "shim_mm": 0.6, "slide_mm": -0.18}]})
    [('feet.0.shim_mm', 'motor tail, shim', '0.6 mm'), ('feet.0.slide_mm', 'motor tail, slide', '−0.18 mm')]
    >>> shown({"dials": [{"kind": "rim", "x_mm": 20.0, "assumed": ["x_mm"], "readings": []}]})
    [('dials.0.x_mm', 'rim x', '20 mm, assumed')]
    >>> shown({"dials": [{"kind": "rim", "readings": [{"clock": 5.0 * n, "value_mm": 0.0} for n in range(40)]}]})
    [('dials.0.readings', 'rim sweep', '40 readings over 195°')]
    """
    found: list[tuple[str, str, Words]] = []
    ends = dict(zip(("readings", "other_end"), inputs.get("ends") or (), strict=False))
    for key, value in inputs.items():
        if key in skip or key in COMPARED or key.endswith(PLACES):
            continue
        places = inputs.get(key.removesuffix("_mm") + PLACES)
        if key == "pulls" and inputs.get("beside"):
            found += _of_two_circles(value, int(inputs["bolts"]))
        elif isinstance(value, list) and places:
            found += [
                (f"{key}.{i}", f"{_word(key)}, {place['station']}, {place['across']}", _text(key, figure))
                for i, (figure, place) in enumerate(zip(value, places, strict=True))
            ]
        else:
            plain = [] if key in ("readings", "dials", "rows") else [_word(key)]
            found += _walk(value, key, [ends[key]] if key in ends else plain)
    return found


def say_figure(value: float, unit: str) -> Words:
    """A figure with its unit, as it stands in a record.

    >>> str(say_figure(-0.0163, "mm")), str(say_figure(0.51, "mm/m")), str(say_figure(190.5, "N·m"))
    ('−0.016 mm', '0.051 mm/100', '190.5 N·m')
    >>> str(say_figure(0.029215, "°"))
    '0.029°'
    """
    places = {"mm": 3, "mm/m": 3, "N·m": 1, "°": 3}.get(unit)
    if unit == "mm/m":  # as the trade reads an angle
        return words("{value}", value=Figure(value / 10, "mm/100", places))
    return words("{value}", value=Figure(value if places is not None else float(f"{value:.5g}"), unit, places))


def _walk(value: Any, path: str, names: list[str]) -> Iterator[tuple[str, str, Words]]:  # noqa: C901, PLR0912 - a table
    match value:
        case {"clock": clock, **rest}:
            place = [*names, say_clock(float(clock))]
            if "on" in rest:
                place.append(f"over the {rest.pop('on')} hub")
            if "side" in rest:
                place.append(f"{rest.pop('side')} side")
            for key, inner in rest.items():
                yield f"{path}.{key}", " ".join(place), _text(str(key), inner)
        case {"kind": kind, "readings": readings, **rest}:
            dial = [*names, str(kind)]
            assumed: Any = rest.pop("assumed", ())
            for key, inner in rest.items():
                if inner is not None:
                    figure = _text(str(key), inner)
                    yield f"{path}.{key}", " ".join([*dial, _word(str(key))]), _assumed(figure) if key in assumed else figure
            yield from _walk(readings, f"{path}.readings", dial)
        case {"name": str(name), **rest} if rest:
            one_of_many = path.rpartition(".")[2].isdigit()
            called = name if one_of_many else " ".join([*names, name]).strip()
            for key, inner in rest.items():
                yield from _walk(inner, f"{path}.{key}", [f"{called},", _word(str(key))])
        case Mapping():
            for key, inner in value.items():
                yield from _walk(inner, f"{path}.{key}", [*names, _word(key)])
        case [{"pass": _, "bolt": _, "reached_nm": _} | {"pass": _, "bolt": _, "torque_nm": _}, *_]:
            for i, pull in enumerate(value):
                yield f"{path}.{i}", f"pass {pull['pass']}, bolt {pull['bolt']}", say_pull(pull)
        case [{"pass": _, "bolt": _, "clicked": _}, *_]:
            for bolt, said in _by(value, "bolt", _half_turn):
                yield f"{path}.{bolt}", f"bolt {bolt}", words("{said}", said=said)
        case [{"hole": _, "to": _} | {"hole": _, "what": _}, *_]:
            for hole, said in _by(value, "hole", lambda done: str(done.get("to") or done["what"])):
                yield f"{path}.{hole}", f"hole {hole}", words("{said}", said=said)
        case [{"clock": _}, *_] if len(value) > MOST_LISTED:
            arc = arc_deg(different_positions([reading["clock"] for reading in value]))
            yield path, " ".join([*names, "sweep"]), words(f"{len(value)} readings over {arc:.0f}°")
        case [int() | float(), *_] if path.endswith("box_mm"):
            yield path, " ".join(names), joined((words("{mm}", mm=Figure(mm, "mm")) for mm in value), ", ")
        case list():
            for i, inner in enumerate(value):
                yield from _walk(inner, f"{path}.{i}", [*names, str(i + 1)] if _wants_a_number(inner, value) else names)
        case None | "":
            return
        case _:
            key = next(step for step in reversed(path.split(".")) if not step.isdigit())
            yield path, " ".join(names) or path, _text(key, value)


def _assumed(said: Words) -> Words:
    """A figure that nobody measured or confirmed."""
    return words("{said}, assumed", said=said)


def say_pull(pull: Mapping[str, Any]) -> Words:
    """What one pull came to.

    >>> str(say_pull({"pass": 1, "bolt": 2, "reached_nm": 35.0, "reached_is": "wrench", "moved": False}))
    '35 N·m on the wrench, did not turn'
    """
    more = [
        " on the wrench" if pull.get("reached_is") == "wrench" else "",
        ", slackened first" if pull.get("slackened") else "",
        {True: ", turned", False: ", did not turn"}.get(pull.get("moved", None), ""),
    ]
    reached = Figure(pull.get("reached_nm", pull.get("torque_nm")), "N·m")
    return words("{reached}{more}", reached=reached, more="".join(more))


def _by(log: list[Mapping[str, Any]], key: str, word: Callable[[Mapping[str, Any]], str]) -> Iterator[tuple[Any, str]]:
    """What was done at each place of a log, in its order."""
    found: dict[Any, list[str]] = {}
    for done in log:
        found.setdefault(done[key], []).append(word(done))
    for place in sorted(found):
        yield place, ", ".join(found[place])


def _of_two_circles(pulls: list[Mapping[str, Any]], first: int) -> Iterator[tuple[str, str, Words]]:
    for bolt, said in _by(pulls, "bolt", _half_turn):
        yield f"pulls.{bolt}", f"bolt {name_on_circles(bolt, first)}", words("{said}", said=said)


def _half_turn(pull: Mapping[str, Any]) -> str:
    did = "clicked" if pull.get("clicked") else "half a turn"
    return f"round {pull['pass']} {did}" + (", did not turn" if pull.get("turned") is False else "")


def _wants_a_number(item: Any, items: list[Any]) -> bool:
    """A reading is told by its clock, a dial by its kind; what has neither, or shares it, by its place."""
    if len(items) == 1 or (isinstance(item, Mapping) and "clock" in item):
        return False
    kinds = [other.get("kind") for other in items if isinstance(other, Mapping)]
    return not isinstance(item, Mapping) or "kind" not in item or kinds.count(item["kind"]) > 1


def _word(key: str) -> str:
    for suffix in UNITS:
        key = key.removesuffix(suffix)
    return key.replace("_", " ")


def _text(key: str, value: Any) -> Words:
    if value is True or value is False:
        return words("yes" if value else "no")
    unit = next((unit for suffix, unit in UNITS.items() if key.endswith(suffix)), "")
    if isinstance(value, int | float):
        shown = float(f"{value:.4g}") if abs(value) < 1 else float(value)
        return words("{value}", value=Figure(shown, unit))
    return words("{value}", value=WAY_WORDS.get(str(value), str(value)))
