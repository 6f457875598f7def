"""Where the page and the data lie, in a checkout and installed."""

import tomllib
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


class Package(SimpleTestCase):
    """The package of the root is put together of the core's and the server's, and says no more and no less."""

    def test_it_holds_what_they_hold(self):
        whole, core, server = (
            tomllib.loads((where.CHECKOUT / place / "pyproject.toml").read_text()) for place in (".", "core", "server")
        )
        self.assertEqual(whole["project"]["entry-points"], server["project"]["entry-points"])
        self.assertEqual(whole["project"]["scripts"], core["project"]["scripts"])
        finds = [one["tool"]["setuptools"]["packages"]["find"]["include"] for one in (whole, core, server)]
        self.assertEqual(set(finds[0]), {*finds[1], *finds[2]})
        self.assertEqual(
            whole["tool"]["setuptools"]["package-data"]["gondola_core"],
            core["tool"]["setuptools"]["package-data"]["gondola_core"],
        )
