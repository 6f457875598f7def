from django.contrib.auth.models import User
from django.test import TestCase


class Library(TestCase):
    def test_generic_materials_for_who_is_signed_in(self):
        self.assertEqual(self.client.get("/api/library").status_code, 401)
        self.client.force_login(User.objects.create_user("owner"))
        shelf = self.client.get("/api/library").json()
        self.assertEqual([resin["id"] for resin in shelf["resins"]], ["deep", "casting", "coating"])
        self.assertEqual(len(shelf["colourants"]), 7)
        self.assertIn("acrylic", [solid["id"] for solid in shelf["solids"]])
