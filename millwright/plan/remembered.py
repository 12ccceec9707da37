"""A route is composed once, and anew only where something says otherwise that its composing looked at."""

from collections import OrderedDict
from collections.abc import Callable, Hashable, Iterator, Mapping
from dataclasses import dataclass, replace
from threading import Lock
from types import MappingProxyType
from typing import Any, Never, cast

from .route import Route
from .steps import JobFacts

MOST = 256  # routes
DEEP = ("answers", "as_left")  # of these it is the single answer that counts
LOOKED_INTO = ("card", *DEEP, "phases", "hottest_c", "arrived_c", "moved_after", "out")
ABSENT = object()
NOTHING: Mapping[str, Any] = MappingProxyType({})
WHOLE = object()


class Watched(Mapping[str, Any]):
    """A mapping that keeps what was looked up in it, and what stood there."""

    def __init__(self, behind: Mapping[str, Any], *, deep: bool) -> None:
        self._behind, self._deep = behind, deep
        self.seen: dict[Any, Any] = {}
        self._inner: dict[str, Watched] = {}

    def get(self, key: str, default: Any = None) -> Any:
        """What stands there, else the default."""
        found = self._look(key)
        return default if found is ABSENT else found

    def __getitem__(self, key: str) -> Any:
        found = self._look(key)
        if found is ABSENT:
            raise KeyError(key)
        return found

    def __contains__(self, key: object) -> bool:
        return self._look(key) is not ABSENT

    def __iter__(self) -> Iterator[str]:
        self.seen[WHOLE] = self._behind
        return iter(self._behind)

    def __len__(self) -> int:
        self.seen[WHOLE] = self._behind
        return len(self._behind)

    def _look(self, key: Any) -> Any:
        found = self._behind.get(key, ABSENT)
        if not self._deep or not isinstance(found, Mapping):
            self.seen[key] = found
            return found
        if key not in self._inner:
            self._inner[key] = Watched(found, deep=False)
        return self._inner[key]

    def let_go(self) -> None:
        """Of all that stands there only what was looked up is kept: a sweep of thousands of readings is not."""
        self._behind = NOTHING
        for inner in self._inner.values():
            inner.let_go()

    def says(self, now: Mapping[str, Any]) -> bool:
        """True where everything that was looked up stands in ``now`` as it stood."""
        for key, was in self.seen.items():
            if key is WHOLE:
                if now != was:
                    return False
            elif now.get(key, ABSENT) != was:
                return False
        for key, inner in self._inner.items():
            stands = now.get(key)
            if not isinstance(stands, Mapping) or not inner.says(stands):
                return False
        return True


@dataclass(kw_only=True)
class _Composed:
    """A route, what it was composed by, and what was looked at for it."""

    route: Route
    by: object
    watched: Mapping[str, Watched]


_composed: OrderedDict[Hashable, _Composed] = OrderedDict()
_storing = Lock()


def _by_the_clock(plan: str, run: str) -> Never:
    """How far a hub has cooled is another answer a second later: what is composed by it could not be remembered."""
    raise RuntimeError(f"{plan}, {run}: a route is not composed by the clock")


def remembered(job: JobFacts, by: object, compose: Callable[[JobFacts], Route]) -> Route:
    """What ``compose`` makes of a job; composed anew only where it looked at what has changed since.

    It may look at everything in a job but the clock, and of the locks only whether they are off.

    ``by`` - what it composes by beside the job: another thing, and it is composed anew
    """
    key = (job.line.model_dump_json(), job.scope, job.terms, job.locks.live)
    known = _composed.get(key)
    if known is not None and known.by is by and all(known.watched[name].says(getattr(job, name)) for name in LOOKED_INTO):
        return known.route
    watched = {name: Watched(getattr(job, name), deep=name in DEEP) for name in LOOKED_INTO}
    route = compose(replace(job, **cast(dict[str, Any], watched), cooling=_by_the_clock))
    for one in watched.values():
        one.let_go()
    with _storing:
        _composed[key] = _Composed(route=route, by=by, watched=watched)
        if len(_composed) > MOST:
            _composed.popitem(last=False)
    return route
