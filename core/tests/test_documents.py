"""Pour sheet and calendar: read back by what reads such files."""

import csv
import io
import re
import unittest
from dataclasses import replace
from datetime import UTC, datetime, timedelta
from zoneinfo import ZoneInfo

from changed import changed
from icalendar import Calendar
from PIL import Image

from gondola_core.answers.book import Book
from gondola_core.answers.steps import STEPS
from gondola_core.documents.bench_sheet import rows_of, sheet_csv, sheet_pdf
from gondola_core.documents.calendar import Almanac, calendar_of
from gondola_core.documents.card import card_pdf, card_png, card_text
from gondola_core.evaluate import evaluate
from gondola_core.samples import quarry_pool
from gondola_core.studies.chances import chances
from gondola_core.tables import csv_of
from gondola_core.words import METRIC, US

SCENE = quarry_pool()
OUTCOME = evaluate(SCENE)
STEPS_NOW = Book(SCENE).ask(STEPS)
ZONE = ZoneInfo("America/New_York")
STAMPED = datetime(2027, 2, 1, tzinfo=UTC)


class Sheet(unittest.TestCase):
    def test_the_csv_holds_every_step_with_its_numbers(self):
        for units, unit, share in ((METRIC, "mass g", 1.0), (US, "mass oz", 28.3495)):
            rows = list(csv.DictReader(io.StringIO(sheet_csv(STEPS_NOW, units))))
            self.assertEqual([row["step"] for row in rows], [one.id for one in STEPS_NOW])
            for row, one in zip(rows, STEPS_NOW, strict=True):
                with self.subTest(one.id, unit=unit):
                    if one.target_g is not None:
                        self.assertAlmostEqual(float(row[unit]) * share, one.target_g, delta=0.02)
                    self.assertEqual(row["drops"], "" if one.drops is None else str(one.drops))

    def test_words_that_a_spreadsheet_would_compute_are_words(self):
        for text in ('=HYPERLINK("http://x","dust")', "  @SUM(A1)", "+1", "-2", "\t=1"):
            with self.subTest(text):
                row = next(csv.reader(io.StringIO(csv_of(["a"], [[text]]).split("\n", 1)[1])))
                self.assertEqual(row, [f"'{text}"])
        for plain in ("Pour part A", "a = b", "", 3, -2.5):
            with self.subTest(plain):
                row = next(csv.reader(io.StringIO(csv_of(["a", "b"], [[plain, "x"]]).split("\n", 1)[1])))
                self.assertEqual(row, [str(plain), "x"])

    def test_the_pdf_is_whole_and_the_same_again(self):
        for units, size in ((METRIC, (595, 842)), (US, (612, 792))):
            with self.subTest(size=size):
                first, again = (sheet_pdf(SCENE, OUTCOME, STEPS_NOW, units, 3) for _ in range(2))
                self.assertEqual(first, again)
                self.assertTrue(first.startswith(b"%PDF-") and first.rstrip().endswith(b"%%EOF"))
                box = first.split(b"/MediaBox")[1].split(b"]")[0].replace(b"[", b"").split()
                self.assertEqual([round(float(one)) for one in box[2:4]], list(size))

    def test_who_has_no_scale_reads_millilitres(self):
        rows = rows_of(STEPS_NOW, METRIC, by_volume=True)
        weighed = [row.amount for row, one in zip(rows, STEPS_NOW, strict=True) if one.kind in ("weigh_a", "weigh_b")]
        self.assertTrue(all(amount.endswith(" ml") for amount in weighed))

    def test_a_name_with_marks_of_its_own_is_printed(self):
        odd = SCENE.model_copy(update={"name": "Ö & <b>Fish</b> µ — 鱼"})
        self.assertGreater(len(sheet_pdf(odd, OUTCOME, STEPS_NOW)), 5000)


class Dates(unittest.TestCase):
    def read(self, scene=SCENE, outcome=OUTCOME, **more):
        almanac = Almanac(zone=ZONE, stamped=STAMPED, key="scene-3")
        return Calendar.from_ical(calendar_of(scene, outcome, almanac, **more))

    def test_pours_stand_at_their_hours_in_the_zone_with_alarms(self):
        events = {str(one["uid"]): one for one in self.read().walk("VEVENT")}
        for pour in OUTCOME.pours:
            with self.subTest(pour=pour.number):
                event = events[f"{pour.id}.scene-3@gondola"]
                start = event["dtstart"].dt
                self.assertEqual(start.replace(tzinfo=None).isoformat(timespec="minutes"), pour.clock.starts_at)
                self.assertEqual(start.utcoffset(), ZONE.utcoffset(start.replace(tzinfo=None)))
                triggers = [one["trigger"].dt for one in event.walk("VALARM")]
                self.assertEqual(triggers, [timedelta(hours=-1), timedelta(0)])
                self.assertIn("data sheet", str(event["description"]))

    def test_no_alarm_in_quiet_hours(self):
        quiet = changed(brief__quiet=[21.0, 8.5])
        events = {str(one["uid"]): one for one in self.read(quiet, evaluate(quiet)).walk("VEVENT")}
        first = events["pour-1.scene-3@gondola"]
        self.assertEqual(first["dtstart"].dt.hour, 9)
        self.assertEqual([one["trigger"].dt for one in first.walk("VALARM")], [timedelta(0)])

    def test_windows_do_not_take_time_and_their_zone_travels_along(self):
        calendar = self.read()
        windows = [one for one in calendar.walk("VEVENT") if str(one["uid"]).startswith("tack-")]
        self.assertEqual(len(windows), len(SCENE.pours) - 1)
        for one, pour in zip(windows, OUTCOME.pours, strict=False):
            self.assertEqual(str(one["transp"]), "TRANSPARENT")
            self.assertEqual(
                one["dtend"].dt.replace(tzinfo=None).isoformat(timespec="minutes"), pour.clock.tack_closes_at
            )
        self.assertEqual([str(one["tzid"]) for one in calendar.walk("VTIMEZONE")], ["America/New_York"])

    def test_the_chance_of_a_window_is_told(self):
        drawn = chances(SCENE, 16, 1)
        told = self.read(chances=[one.bonds_fraction for one in drawn.pours]).walk("VEVENT")
        said = [str(one["description"]) for one in told if "pour-2" in str(one["uid"])]
        self.assertIn(f"in {round(100 * drawn.pours[0].bonds_fraction)} of 100", said[0])

    def test_another_plan_moves_the_same_entries(self):
        later = changed(pours__1__wait_h=28.0)
        before, after = ({str(one["uid"]): one["dtstart"].dt for one in cal.walk("VEVENT")} for cal in (
            self.read(), self.read(later, evaluate(later)),
        ))
        self.assertEqual(set(before), set(after))
        moved = after["pour-2.scene-3@gondola"] - before["pour-2.scene-3@gondola"]
        self.assertEqual(moved, timedelta(hours=28.0 - SCENE.pours[1].wait_h))


if __name__ == "__main__":
    unittest.main()


class Card(unittest.TestCase):
    def test_it_names_the_piece_its_size_and_each_pour_from_the_top(self):
        text = card_text(SCENE, OUTCOME)
        self.assertEqual(text.title, SCENE.name)
        self.assertIn("1:48, 180 mm wide", text.under)
        self.assertEqual([row.split(",")[0] for row in text.rows], [f"Pour {number}" for number in (4, 3, 2, 1)])
        self.assertIn("0.3 drops of leaf green ink", text.rows[2])

    def test_who_reads_inches_reads_no_metric_word(self):
        text = card_text(SCENE, OUTCOME, US)
        self.assertIsNone(re.search(r"\d\s?(mm|ml|g)\b(?! of)", text.under))

    def test_a_pour_without_ink_is_clear(self):
        clear = changed(SCENE, pours__3__doses=[])
        self.assertIn("clear", card_text(clear, evaluate(clear)).rows[0])

    def test_picture_and_page_are_the_same_again(self):
        text, picture = card_text(SCENE, OUTCOME), Image.new("RGB", (96, 60), (20, 90, 80))
        self.assertEqual(Image.open(io.BytesIO(card_png(text, picture))).size, (1200, 1500))
        for units in (METRIC, US):
            page = card_pdf(text, picture, units)
            self.assertTrue(page.startswith(b"%PDF"))
            self.assertEqual(page, card_pdf(text, picture, units))

    def test_a_long_recipe_goes_on_over_the_page(self):
        text = replace(card_text(SCENE, OUTCOME), rows=["a very long recipe of many words " * 12] * 30)
        page = card_pdf(text, Image.new("RGB", (96, 60)))
        self.assertGreaterEqual(page.count(b"/Type /Page\n") + page.count(b"/Type /Page "), 2)
        self.assertTrue(card_png(text, Image.new("RGB", (96, 60))))
