"""What a worker remembers of a job is what stands in the database."""

from collections import OrderedDict
from contextlib import AbstractContextManager
from typing import Any
from unittest import mock
from uuid import uuid4

from django.test import TestCase

from server.demo import blower
from server.jobs import so_far as module
from server.jobs.models import Entry, Job
from server.jobs.so_far import _anew, so_far
from tests.site import Member, build_two_sites


class SoFarTest(TestCase):
    """Two workers at one job, each with what it remembers."""

    job: Job

    @classmethod
    def setUpTestData(cls) -> None:
        cls.job = build_two_sites()

    def setUp(self) -> None:
        self.workers: list[OrderedDict[Any, Any]] = [OrderedDict(), OrderedDict()]
        self.member = Member("millwright")

    def test_read_again_and_taken_out_by_either_it_is_what_stands(self) -> None:
        read: list[str] = []
        for turn, what in enumerate(("read", "read", "note", "read", "slip", "read", "slip", "slip", "read", "note")):
            with self.at(turn % 2), self.captureOnCommitCallbacks(execute=True):
                if what == "slip":
                    self.enter("slip", {"entry": read.pop()})
                elif what == "note":
                    self.enter("note", {"text": f"note {turn}"})
                else:
                    read.append(self.enter("reading", blower.FOUND))
            for worker in (0, 1):
                with self.subTest(turn=turn, what=what, worker=worker), self.at(worker):
                    self.assertEqual(so_far(self.fresh()), _anew(self.fresh()))
                    with self.assertNumQueries(1):
                        so_far(self.fresh())

    def test_what_was_never_stored_is_not_told_whatever_comes_in_its_place(self) -> None:
        for came in (1, 2):
            with self.subTest(came=came):
                with self.at(0), self.captureOnCommitCallbacks(execute=True):
                    module.and_then(so_far(self.fresh()), self.never_stored())
                with self.at(1):
                    for n in range(came):
                        self.enter("note", {"text": f"in its place {n}"})
                with self.at(0):
                    self.assertEqual(so_far(self.fresh()), _anew(self.fresh()))

    def test_a_row_just_read_is_told_no_later_than_itself(self) -> None:
        before = self.fresh()
        self.enter("note", {"text": "later"})
        for worker in (0, 1):
            with self.subTest(worker=worker), self.at(worker):
                self.assertEqual(max(e.number for e in so_far(before).entries), before.last_number)

    def at(self, worker: int) -> AbstractContextManager[Any]:
        """At one of the two workers."""
        return mock.patch.object(module, "_remembered", self.workers[worker])

    def fresh(self) -> Job:
        """The job as its row has it now."""
        return Job.objects.get(pk=self.job.pk)

    def never_stored(self) -> Entry:
        """A note that got a number and was rolled back."""
        last = self.job.entries.latest("number")
        lost = Entry(id=uuid4(), job=self.job, number=last.number + 1, step=last.step, kind="note", inputs={"text": "lost"})
        lost.by, lost.role, lost.at, lost.chain = last.by, last.role, last.at, "a" * 64
        return lost

    def enter(self, kind: str, inputs: dict[str, Any]) -> str:
        """What is entered at the alignment; its id."""
        status, said = self.member.enter(self.job, "set.align", inputs, kind=kind)
        self.assertEqual(status, 201, said)
        return str(said["id"])
