"""Files that were changed, by somebody who makes the change fit: refused, or kept as a paper that nothing goes by."""

import json
import re
from collections.abc import Callable, Iterator
from random import Random
from typing import Any

from django.db import transaction
from django.test import TestCase

from server.accounts.models import Membership
from server.jobs.models import Job
from server.keep.due.summary import rebuild_site
from server.keep.models import DueItem
from server.plant.models import Line
from tests.forger import made_to_fit
from tests.site import PASSWORD, Member, build_two_sites, forget_jobs, is_whole, job_of

BLOWER = "Steep aeration blower 2"
SEED, NAIVE, FORGED = 20261201, 60, 40
Held = dict[str, Any]
Path = tuple[str | int, ...]


def leaves(value: Any, path: Path = ()) -> Iterator[Path]:
    """The way to every leaf of a file."""
    items = value.items() if isinstance(value, dict) else enumerate(value) if isinstance(value, list) else ()
    if not value or not isinstance(value, dict | list):
        yield path
    for key, inner in items:
        yield from leaves(inner, (*path, key))


def changed(held: Held, path: Path) -> Held:
    """The file with something else at one leaf, of the same kind where there is such."""
    other: Held = json.loads(json.dumps(held))
    at: Any = other
    for key in path[:-1]:
        at = at[key]
    was = at[path[-1]]
    match was:
        case bool():
            at[path[-1]] = not was
        case int():
            at[path[-1]] = was + 1
        case float():
            at[path[-1]] = was + 0.25
        case str() if re.match(r"\d{4}-\d\d-\d\dT", was):
            at[path[-1]] = was.replace("2026-1", "2026-0").replace("2025-", "2024-")
        case str():
            at[path[-1]] = (
                f"{was}x" if not re.fullmatch("[0-9a-f]{8}-.*", was) else f"{was[:-1]}{'1' if was[-1] == '0' else '0'}"
            )
        case None:
            at[path[-1]] = "forged"
        case _:
            at[path[-1]] = ["forged"] if isinstance(was, list) else {"forged": "forged"}
    return other


def _align(held: Held) -> int:
    return max(i for i, e in enumerate(held["entries"]) if e["step"] == "set.align" and e["kind"] == "reading")


def first_version(held: Held) -> Held:
    plain = [{k: v for k, v in e.items() if k not in ("asked", "chain", "whose")} for e in held["entries"]]
    signed = [{k: v for k, v in s.items() if k not in ("chain", "whose")} for s in held["signatures"]]
    return {**held, "version": 1, "entries": plain, "signatures": signed}


def only_signed(held: Held) -> Held:
    return {
        **first_version(held),
        "entries": [],
        "signatures": [first_version(held)["signatures"][-1] | {"number": 1}],
    }


def by_the_inspector(held: Held) -> Held:
    held = first_version(held)
    signed = [{**s, "by": "The Chief Inspector", "role": "apprentice"} for s in held["signatures"]]
    return {**held, "signatures": signed}


def other_limits(held: Held) -> Held:
    entry = held["entries"][_align(held)]
    entry["asked"]["form"] = "forged"
    entry["inputs"]["limits"] = {**entry["inputs"]["limits"], "offset_mm": 40.0}
    return made_to_fit(held)


def other_words(held: Held) -> Held:
    for entry in held["entries"]:
        entry["asked"]["title"] = "Everything was proven by the maker himself"
    return made_to_fit(held)


def other_typing(held: Held) -> Held:
    held["entries"][_align(held)]["typed"] = {"dials.0.readings.1.value_mm": "123.456 FORGED"}
    return made_to_fit(held)


def other_chain(held: Held) -> Held:
    return {**held, "chain": "0" * 64}


def the_year_one(held: Held) -> Held:
    return made_to_fit({**held, "started_at": "0001-01-01T00:00:00Z"})


def no_question(held: Held) -> Held:
    held["entries"][0]["asked"] = {"title": 7, "stage": [1], "bench": {}}
    return made_to_fit(held)


class ForgedTest(TestCase):
    """One door for files."""

    job: Job

    @classmethod
    def setUpTestData(cls) -> None:
        cls.job = build_two_sites()

    def setUp(self) -> None:
        self.lead = Member("lead")

    def forget(self) -> None:
        """As on another installation, where nothing goes by these jobs either."""
        forget_jobs()
        rebuild_site(self.job.site)

    def file_of(self, job: Job) -> Held:
        """As the application writes it."""
        return dict(json.loads(self.lead.get(f"/api/records/{job.pk}/json").content))

    def read_in(self, held: Held) -> tuple[int, Any]:
        """Status and answer of an import."""
        return self.lead.ask("POST", "/api/records", held)

    def what_goes_by_it(self, line: Line) -> Any:
        """Due, as left, drifting, on Monday."""
        _, history = self.lead.ask("GET", f"/api/history/{line.pk}")
        _, monday = self.lead.ask("GET", "/api/reasons")
        due = list(DueItem.objects.filter(line=line).order_by("kind").values_list("kind", "on", "since"))
        return due, {k: v for k, v in history.items() if k != "aside"}, {k: v for k, v in monday.items() if k != "left_out"}

    def test_any_leaf_that_is_changed_and_not_made_to_fit_is_refused(self) -> None:
        held = self.file_of(self.job)
        self.forget()
        shown_as_the_files = {"number", "site", "line", "image"}  # no part of what was entered
        paths = [path for path in leaves(held) if path[-1] not in shown_as_the_files]
        for path in Random(SEED).sample(paths, NAIVE):
            with self.subTest(path):
                self.assertIn(self.read_in(changed(held, path))[0], (422,))
        self.assertEqual(Job.objects.count(), 0)

    def test_any_leaf_that_is_changed_and_made_to_fit_is_refused_or_goes_for_nothing(self) -> None:
        smallest = min(Job.objects.counted(), key=lambda job: job.last_number)
        held, line = self.file_of(smallest), smallest.line
        of_one_kind = {tuple(str(key) for key in path if isinstance(key, str)): path for path in leaves(held)}
        with transaction.atomic():
            self.forget()
            before = self.what_goes_by_it(line)
            taken = 0
            for path in Random(SEED).sample(list(of_one_kind.values()), FORGED):
                with self.subTest(path), transaction.atomic():
                    forged = changed(held, path)
                    status, shown = self.read_in(forged if path[-1] in ("chain",) else made_to_fit(forged))
                    self.assertIn(status, (201, 422), shown)
                    if status == 201:
                        taken += 1
                        job = Job.objects.get(pk=shown["id"])
                        self.assertTrue(job.is_paper)
                        self.assertTrue(is_whole(job))
                        self.assertEqual(self.what_goes_by_it(line), before)
                        for page in (f"/api/records/{job.pk}", f"/api/jobs/{job.pk}", f"/api/records/{job.pk}/json"):
                            self.assertEqual(self.lead.get(page).status_code, 200, page)
                    transaction.set_rollback(True)
            self.assertGreater(taken, 0)
            transaction.set_rollback(True)

    def test_what_was_once_taken_closes_nothing_any_more(self) -> None:
        closed = self.file_of(job_of(BLOWER, closed=True))
        line = self.job.line

        deeds: tuple[tuple[Callable[[Held], Held], bool], ...] = (
            (first_version, True),
            (only_signed, True),
            (by_the_inspector, True),
            (other_limits, True),
            (other_words, True),
            (other_typing, False),
            (other_chain, False),
            (the_year_one, False),
            (no_question, False),
        )
        with transaction.atomic():
            self.forget()
            before = self.what_goes_by_it(line)
            for deed, is_taken in deeds:
                with self.subTest(deed.__name__), transaction.atomic():
                    status, shown = self.read_in(deed(json.loads(json.dumps(closed))))
                    self.assertEqual(status, 201 if is_taken else 422, shown)
                    if is_taken:
                        job = Job.objects.get(pk=shown["id"])
                        _, record = self.lead.ask("GET", f"/api/records/{job.pk}")
                        self.assertFalse(record["closed"])
                        self.assertIn("Nobody has taken it over: nothing here goes by it.", record["read_in"])
                        self.assertEqual(self.what_goes_by_it(line), before)
                        self.assertEqual("not judged here" in record["read_in"], deed is not other_words)
                        done = [s["key"] for s in shown["steps"] if s["state"] == "done" and s["form"]["kind"] != "sign"]
                        self.assertEqual(done == [], deed is not other_words)
                        in_words = json.dumps([s["title"] for s in record["steps"]])
                        self.assertNotIn("the maker himself", in_words)
                    transaction.set_rollback(True)
            transaction.set_rollback(True)

    def test_a_lead_takes_a_job_over_by_name_and_from_then_on_it_counts(self) -> None:
        closed = job_of(BLOWER, closed=True)
        held, line = self.file_of(closed), closed.line
        self.forget()
        _, shown = self.read_in(held)
        path, body = f"/api/jobs/{shown['id']}/take-over", {"password": PASSWORD}
        before = self.what_goes_by_it(line)
        self.assertEqual(before[1]["jobs"], [])
        _, history = self.lead.ask("GET", f"/api/history/{line.pk}")
        self.assertEqual([one["said"] for one in history["aside"]], ["Read in from a file, not taken over"])
        self.assertIn("not taken over", self.lead.get(f"/api/history/{line.pk}/csv").content.decode())
        _, monday = self.lead.ask("GET", "/api/reasons?months=240")
        self.assertEqual([one["number"] for one in monday["left_out"]], [shown["number"]])
        self.assertEqual(Member("millwright").ask("POST", path, body)[0], 403)
        self.assertEqual(self.lead.ask("POST", path, {"password": "wrong"})[0], 422)
        status, after = self.lead.ask("POST", path, body)
        self.assertEqual((status, after["read_in"]["taken_over_by"]), (200, "Ansa Pellwright"))
        self.assertEqual(self.lead.ask("POST", path, body)[0], 409)
        _, history = self.lead.ask("GET", f"/api/history/{line.pk}")
        self.assertEqual(([one["number"] for one in history["jobs"]], history["aside"]), ([shown["number"]], []))
        self.assertNotEqual(self.what_goes_by_it(line)[0], before[0])
        _, record = self.lead.ask("GET", f"/api/records/{shown['id']}")
        self.assertIn("Taken over by Ansa Pellwright", record["read_in"])
        self.assertTrue(record["closed"])
        self.assertTrue(is_whole(Job.objects.get(pk=shown["id"])))

    def test_an_open_job_from_a_file_is_carried_on_once_it_was_taken_over(self) -> None:
        held = self.file_of(self.job)
        forget_jobs()
        _, shown = self.read_in(held)
        job = Job.objects.get(pk=shown["id"])
        move = {"feet": [{"name": "motor tail", "shim_mm": 0.1}], "axial_mm": 0.0}
        status, said = self.lead.enter(job, "set.align", move, kind="move")
        self.assertEqual(status, 409)
        self.assertIn("A lead takes it over first", said["errors"][0]["message"])
        floor = {line["name"]: line["job"] for line in self.lead.ask("GET", "/api/jobs")[1]}
        self.assertTrue(floor[BLOWER]["read_in"])
        self.assertEqual(self.lead.ask("POST", f"/api/jobs/{job.pk}/take-over", {"password": PASSWORD})[0], 200)
        self.assertEqual(self.lead.enter(job, "set.align", move, kind="move")[0], 201)
        self.assertTrue(is_whole(Job.objects.get(pk=job.pk)))
        again = self.file_of(Job.objects.get(pk=job.pk))
        forget_jobs()
        status, shown = self.read_in(again)
        self.assertEqual(status, 201, shown)
        self.assertIsNone(shown["read_in"]["taken_over_at"])

    def test_a_paper_that_was_not_finished_is_nothing_to_go_on_with(self) -> None:
        held = self.file_of(self.job)
        held["entries"][-1]["asked"]["form"] = "of another day"
        forget_jobs()
        status, shown = self.read_in(made_to_fit(held))
        self.assertEqual(status, 201, shown)
        self.assertTrue(shown["closed"])
        self.assertIn("Read in as a paper", shown["cancelled_because"])
        self.assertEqual(self.lead.ask("POST", f"/api/jobs/{shown['id']}/take-over", {"password": PASSWORD})[0], 409)
        started = self.lead.ask("POST", f"/api/jobs/of-line/{self.job.line_id}", {"title": "Anew"})
        self.assertEqual(started[0], 201)
        self.assertTrue(is_whole(Job.objects.get(pk=shown["id"])))
        self.assertEqual(Membership.objects.get(user__username="lead").user.shown_name, shown["cancelled_by"])

    def test_history_is_read_in_while_somebody_works_on_the_line(self) -> None:
        held = self.file_of(job_of(BLOWER, closed=True))
        opened = self.file_of(self.job)
        forget_jobs()
        self.assertEqual(self.read_in(opened)[0], 201)
        status, shown = self.read_in(held)
        self.assertEqual((status, shown["closed"]), (201, True))
