"""A clock that jumps deletes nothing for its age."""

from __future__ import annotations

import tempfile
from datetime import UTC, datetime, timedelta
from pathlib import Path
from unittest import mock

from django.test import SimpleTestCase

from keeping import commands
from keeping.clock import JUMPED, NOTE, is_steady

NOON = datetime(2027, 3, 6, 12, 0, tzinfo=UTC)
HOUR = timedelta(hours=1)


class Clock(SimpleTestCase):
    def setUp(self) -> None:
        self.folder = Path(self.enterContext(tempfile.TemporaryDirectory()))

    def looks(self, *hours: float) -> list[bool]:
        return [is_steady(self.folder, NOON + one * HOUR) for one in hours]

    def test_it_is_believed_once_it_has_gone_on_for_an_hour(self) -> None:
        rows = [
            ("every six hours", (0, 6, 12), [False, True, True]),
            ("by hand, soon after each other", (0, 0.5, 1.1), [False, False, True]),
            ("a year on and back", (0, 6, 8766, 12.1, 18), [False, True, False, False, True]),
            ("back by a day", (0, 6, -18, -12), [False, True, False, True]),
            ("nothing ran for a week", (0, 6, 174, 180), [False, True, False, True]),
        ]
        for name, hours, believed in rows:
            with self.subTest(name):
                (self.folder / NOTE).unlink(missing_ok=True)
                self.assertEqual(self.looks(*hours), believed)

    def test_a_note_that_is_damaged_is_as_none(self) -> None:
        for text in ("", "{}", '{"looked_at": 3, "steady_since": "x"}', "\x00"):
            with self.subTest(text):
                (self.folder / NOTE).write_text(text)
                self.assertEqual(self.looks(0, 6), [False, True])

    def test_tidy_says_why_it_waits(self) -> None:
        with (
            mock.patch.object(commands, "data_folder", return_value=self.folder),
            mock.patch("sys.stdout.write") as said, mock.patch("keeping.tidying.tidy") as did,
        ):
            self.assertEqual(commands.tidy([]), 0)
        did.assert_not_called()
        self.assertIn(JUMPED, "".join(call.args[0] for call in said.call_args_list))
