"""The round through the hall: what it reads, in which order, and a file of earlier readings."""

from datetime import timedelta
from io import StringIO
from typing import Any
from uuid import uuid4

from django.core.management import call_command
from django.db import DatabaseError, transaction
from django.utils import timezone

from server.keep.models import DueItem
from server.plant.models import LineLook
from tests.site import Member

from .demo_site import CRUSHER, DRUM, MILL, YEAST, DemoTest, line_of


class RoundTest(DemoTest):
    def look(self, name: str, client: Member | None = None, **read: Any) -> tuple[int, Any]:
        body = {"id": str(uuid4()), "line_id": str(line_of(name).pk), **read}
        return (client or self.millwright).ask("POST", "/api/rounds/looks", body)

    def path(self, answer: tuple[int, Any]) -> tuple[int, str]:
        return answer[0], answer[1]["errors"][0]["path"]

    def test_the_lines_come_in_walking_order_and_the_order_is_changed(self) -> None:
        lines = self.lead.get("/api/rounds").json()["lines"]
        self.assertEqual([line["name"] for line in lines][:3], ["Steep aeration blower 2", CRUSHER, MILL])
        crusher = lines[1]
        self.assertEqual((crusher["reads"][0], crusher["lamp"]), ("wear_mm", "slot in the guard, motor side"))
        self.assertIn("page", crusher["limits"]["wear_mm"]["source"])
        order = {"lines": [line["id"] for line in reversed(lines)]}
        self.assertEqual(Member("apprentice").ask("PUT", "/api/rounds/walk", order)[0], 403)
        self.assertEqual(self.lead.ask("PUT", "/api/rounds/walk", order)[0], 204)
        turned = [line["name"] for line in self.lead.get("/api/rounds").json()["lines"]]
        self.assertEqual(turned, [line["name"] for line in reversed(lines)])

    def test_a_look_stands_once_moves_the_round_and_is_not_changed(self) -> None:
        body = {"id": str(uuid4()), "line_id": str(line_of(CRUSHER).pk), "wear_mm": 5.6, "leaks": "none", "ago_s": 3600}
        before = LineLook.objects.count()
        for _ in range(2):
            self.assertEqual(self.millwright.ask("POST", "/api/rounds/looks", body)[0], 201)
        self.assertEqual(LineLook.objects.count(), before + 1)
        kept = LineLook.objects.get(pk=str(body["id"]))
        self.assertAlmostEqual((timezone.now() - kept.at).total_seconds(), 3600, delta=60)
        self.assertEqual(self.due(CRUSHER, "round")["on"], (self.today + timedelta(days=30)).isoformat())
        with self.assertRaisesMessage(DatabaseError, "append-only"), transaction.atomic():
            LineLook.objects.filter(pk=kept.pk).update(wear_mm=1.0)

    def test_a_look_that_was_a_slip_is_taken_out_stays_and_counts_for_nothing(self) -> None:
        line = line_of(CRUSHER)
        before = self.lead.ask("GET", f"/api/history/{line.pk}")[1]
        due = self.due(CRUSHER, "round")
        _, made = self.look(CRUSHER, wear_mm=9.9)
        path = f"/api/rounds/looks/{made['id']}/slip"
        self.assertNotEqual(self.due(CRUSHER, "round"), due)
        self.assertEqual(self.path(self.millwright.ask("POST", path, {"because": " "})), (422, "because"))
        self.assertEqual(Member("apprentice").ask("POST", path, {"because": "x"})[0], 409)
        self.assertEqual(Member("stranger").ask("POST", path, {"because": "x"})[0], 404)
        self.assertEqual(self.millwright.ask("POST", path, {"because": "read at another line"})[0], 204)
        self.assertEqual(self.lead.ask("POST", path, {"because": "x"})[0], 409)
        after = self.lead.ask("GET", f"/api/history/{line.pk}")[1]
        self.assertEqual((after["series"], self.due(CRUSHER, "round")), (before["series"], due))
        shown = after["looks"][0]
        self.assertEqual((shown["id"], shown["slip"]["because"]), (made["id"], "read at another line"))
        self.assertFalse(shown["may_take_out"])
        last = next(one for one in self.lead.get("/api/rounds").json()["lines"] if one["name"] == CRUSHER)["last"]
        self.assertNotEqual(last["id"], made["id"])
        call_command("verify", stdout=StringIO())

    def test_a_file_is_asked_what_a_tap_is_asked(self) -> None:
        line, today = line_of(CRUSHER), self.today
        path = f"/api/rounds/{line.pk}/file"
        days = [(today - timedelta(days=ago)).isoformat() for ago in (3, 2)]
        text = "".join(f"{line}\n" for line in ("at,wear_mm", f"{days[0]},0.1", f"{days[1]},0.1"))
        due = list(DueItem.objects.filter(line=line).values_list("kind", "on").order_by("kind"))
        answer = self.lead.post(path, text, content_type="text/csv")
        self.assertEqual((answer.status_code, answer.json()["errors"][0]["path"]), (422, "line 2"))
        self.assertEqual(list(DueItem.objects.filter(line=line).values_list("kind", "on").order_by("kind")), due)
        answer = self.lead.post(f"{path}?confirmed=true", text, content_type="text/csv")
        self.assertEqual((answer.status_code, answer.json()), (200, {"readings": 2}))

    def test_nonsense_is_refused_where_it_was_typed(self) -> None:
        tomorrow = (self.today + timedelta(days=1)).isoformat()
        for read, path in (
            ({}, "wear_mm"),
            ({"wear_mm": 5.6, "on": tomorrow}, "on"),
            ({"wear_mm": 5.6, "on": "2020-01-01"}, "at"),
            ({"leaks": "floods"}, "leaks"),
            ({"wear_mm": 600}, "wear_mm"),
            ({"wear_mm": "much"}, "wear_mm"),
            ({"wear_mm": 5.6, "typed": {"wear_mm": "0.2 in"}}, "wear_mm"),
            ({"vibration_mm_per_s": 0.2, "typed": {"vibration_mm_per_s": "0.2 in"}}, "vibration_mm_per_s"),
        ):
            self.assertEqual(self.path(self.look(CRUSHER, **read)), (422, path), read)
        self.assertIn("A slip?", self.look(CRUSHER, wear_mm=600)[1]["errors"][0]["message"])
        self.assertEqual(self.look(CRUSHER, wear_mm=5.08, typed={"wear_mm": "0.2 in"}, confirmed=True)[0], 201)
        self.assertEqual(self.look(CRUSHER, Member("stranger"), wear_mm=5.6)[0], 404)

    def test_what_goes_back_is_asked_about_and_taken_once_it_is_confirmed(self) -> None:
        back = self.look(CRUSHER, wear_mm=4.0)
        self.assertEqual(self.path(back), (422, "wear_mm"))
        self.assertIn("does not grow back", back[1]["errors"][0]["message"])
        self.assertEqual(back[1]["errors"][0]["code"], "goes back")
        self.assertEqual(self.path(self.look(DRUM, hours=10.0)), (422, "hours"))
        self.assertEqual(self.look(CRUSHER, wear_mm=4.0, confirmed=True)[0], 201)

    def test_a_file_of_earlier_readings_is_taken_in_whole_or_refused_line_by_line(self) -> None:
        def take(text: str, client: Member | None = None) -> tuple[int, Any]:
            door = f"/api/rounds/{line_of(YEAST).pk}/file"
            answer = (client or self.lead).post(door, text.encode(), content_type="text/csv")
            return answer.status_code, answer.json()

        before = LineLook.objects.count()
        tomorrow = (self.today + timedelta(days=1)).isoformat()
        for text, path, says in (
            ("day,wear_mm\n2024-01-01,3\n", "line 1", "first column is called at"),
            ("at,wear_mm,wear_in\n2024-01-01,3,0.1\n", "line 1", "two units"),
            (f"at,wear_mm\n2024-01-01,3\n{tomorrow},4\n", "line 3", "has not come yet"),
            ("at,wear_mm\n2024-01-01,3\nlast week,4\n", "line 3", "is no day"),
            ("at,temperature_c\n2024-01-01,warm\n", "line 2", "is no number"),
            ("at,hours\n" + "2024-01-01T01:00,5\n" * 100_000, "file", "More than 20,000"),
        ):
            status, said = take(text)
            self.assertEqual((status, said["errors"][0]["path"]), (422, path), text[:60])
            self.assertIn(says, said["errors"][0]["message"])
        self.assertEqual(LineLook.objects.count(), before)
        self.assertEqual(take("at,wear_in\n2024-01-01,0.1\n", Member("apprentice"))[0], 403)
        good = "at;wear_in;hours\n2024-01-01;0,1;400\n2024-02-01 06:30;0,11;900\n"
        self.assertEqual(take(good), (200, {"readings": 2}))
        self.assertEqual(take(good), (200, {"readings": 0}))
        self.assertAlmostEqual(LineLook.objects.get(line__name=YEAST, hours=400).wear_mm or 0, 2.54)

    def test_the_round_is_printed_for_who_has_no_tablet(self) -> None:
        answer = self.lead.get("/api/rounds/sheet.pdf?unit=in")
        self.assertTrue(answer.content.startswith(b"%PDF"))
