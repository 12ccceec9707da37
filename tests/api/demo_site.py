"""The demo's site for a test: its lines by name, and what is due on them."""

from typing import Any

from django.test import TestCase
from django.utils import timezone

from server.plant.models import Line
from tests.site import Member, build_two_sites

CRUSHER, DRUM, MILL, YEAST = "Malt crusher", "Drum turner", "Roller mill", "Yeast pump"


def line_of(name: str) -> Line:
    """A line of the demo."""
    return Line.objects.get(name=name)


class DemoTest(TestCase):
    """The demo's site."""

    @classmethod
    def setUpTestData(cls) -> None:
        build_two_sites()

    def setUp(self) -> None:
        self.lead, self.millwright = Member("lead"), Member("millwright")
        self.today = timezone.localdate()

    def due(self, name: str, kind: str, client: Member | None = None) -> dict[str, Any]:
        """The one thing of that kind that is due on a line."""
        items = (client or self.lead).get(f"/api/due?line={line_of(name).pk}").json()["items"]
        [found] = [item for item in items if item["kind"] == kind]
        return dict(found)
