"""Where the page and the data lie, in a checkout and installed."""

from pathlib import Path
from unittest import mock

from django.test import SimpleTestCase

from gondola_server import where


class Places(SimpleTestCase):
    def test_data_lies_where_it_is_told_else_beside_the_code_else_with_the_account(self):
        rows = [
            (True, {"GONDOLA_DATA": "/srv/studio"}, Path("/srv/studio")), (True, {}, where.CHECKOUT / "data"),
            (False, {"GONDOLA_DATA": "/srv/studio"}, Path("/srv/studio")),
            (False, {"XDG_DATA_HOME": "/home/ada/.data"}, Path("/home/ada/.data/gondola")),
            (False, {}, Path.home() / ".local" / "share" / "gondola"),
        ]
        for checkout, told, folder in rows:
            with self.subTest(checkout=checkout, told=told), mock.patch.object(
                where, "is_checkout", return_value=checkout
            ):
                self.assertEqual(where.usual_data(told), folder)

    def test_the_page_comes_from_the_build_here_and_from_the_package_elsewhere(self):
        self.assertTrue(where.is_checkout())
        self.assertEqual(where.page_folder(), where.CHECKOUT / "web" / "dist")
        with mock.patch.object(where, "CHECKOUT", Path("/nowhere")):
            self.assertEqual(where.page_folder(), Path(where.__file__).parent / "page")
