import json
import unittest

from gondola_core.errors import SceneError
from gondola_core.samples import SAMPLES, quarry_pool
from gondola_core.scene import LARGEST_FILE, Scene, migrate, read_scene


def changed(path, value, scene=None):
    """The demo scene's JSON with one value put at a dotted path."""
    document = json.loads((scene or quarry_pool()).model_dump_json())
    *way, last = [int(part) if part.isdigit() else part for part in path.split(".")]
    spot = document
    for part in way:
        spot = spot[part]
    if value is KeyError:
        del spot[last]
    else:
        spot[last] = value
    return json.dumps(document)


class RoundTrip(unittest.TestCase):
    def test_samples_read_back_as_they_were_written(self):
        for name, make in SAMPLES.items():
            with self.subTest(name):
                scene = make()
                self.assertEqual(read_scene(scene.model_dump_json()), scene)

    def test_schema_names_the_bounds(self):
        schema = Scene.model_json_schema()
        line = schema["$defs"]["Pour"]["properties"]["top_depth_mm"]
        self.assertEqual((line["minimum"], line["maximum"]), (0, 600))
        self.assertEqual(line["unit"], "mm below the fill line")


class Sentences(unittest.TestCase):
    def test_each_flaw_names_the_field_and_what_is_allowed(self):
        rows = [
            ("pours.1.top_depth_mm", -40, "pours.1.top_depth_mm",
             "Pour 2, layer line has to be from 0 to 600 mm below the fill line; it says -40."),
            ("pours.1.mix_c", "warm", "pours.1.mix_c",
             "Pour 2, temperature of the poured mix has to be a number; it says 'warm'."),
            ("tank.inner_width_mm", 5, "tank.inner_width_mm",
             "Tank, inner width of the tank has to be from 15 to 1200 mm; it says 5."),
            ("bed.heights_mm.2.3", 700, "bed.heights_mm.2.3",
             "Bed, row 3 4, height of the bed has to be from 0 to 600 mm; it says 700."),
            ("resins.0.heat_of_cure_j_g", 10000, "resins.0.heat_of_cure_j_g",
             "Resin 1, heat of cure has to be from 20 to 700 J/g; it says 10000."),
            ("resins.0.heat_of_cure_j_g", 4e6, "resins.0.heat_of_cure_j_g",
             "Resin 1, heat of cure has to be from 20 to 700 J/g; it says 4,000,000."),
            ("brief.room", KeyError, "brief.room", "Brief, room is missing."),
            ("brief.rooms", 3, "brief.rooms",
             "Brief, rooms is not a field of a scene: take it out or correct its spelling."),
            ("brief.light", "moon", "brief.light",
             "Brief, light on the finished piece has to be 'lamp_above', 'room', "
             "'lit_from_behind' or 'mixed'; it says 'moon'."),
            ("bed.heights_mm", [[1, 2], [1]], "bed.heights_mm.1",
             "Bed, row 2 has to have at least 2 entries; it has 1."),
            ("pours", [], "pours", "Pours has to have at least 1 entry; it has 0."),
            ("brief.first_pour_at", "tomorrow", "brief.first_pour_at",
             "Brief, start of the first pour has to be a date and time such as 2027-03-05T09:00; "
             "it says 'tomorrow'."),
            ("bed.sealed", "maybe", "bed.sealed",
             "Bed, bed sealed has to be true or false; it says 'maybe'."),
            ("bed.paint_srgb", "green", "bed.paint_srgb",
             "Bed, colour of the bed has to be a colour such as #8a4b32; it says 'green'."),
            ("pours.0.id", "a b", "pours.0.id",
             "Pour 1, id has to be small letters, digits and dashes, 40 at most; it says 'a b'."),
            ("brief.pieces_count", 1.5, "brief.pieces_count",
             "Brief, number of equal pieces has to be a whole number; it says 1.5."),
            ("name", 3, "name", "Name of the scene has to be text; it says 3."),
            ("tank", [], "tank", "Tank has to be an object with fields of its own; it says otherwise."),
            ("pours.0.hands_min", 0, "pours.0.hands_min",
             "Pour 1, hands-on time has to be from 0.5 to 600 min; it says 0."),
            ("tank.cutting.sheet_mm.1", 0, "tank.cutting.sheet_mm.1",
             "Tank, cutting, side 2, size of the stock sheet has to be from 50 to 4000 mm; it says 0."),
            ("pours.3.top_depth_mm", 3, "",
             "The last pour ends 3 mm below the fill line: its layer line has to be 0."),
            ("pours.2.top_depth_mm", 50, "",
             "The line of pour 3 at 50 mm has to lie above the line of pour 2 at 40 mm: pours go "
             "from the bottom up."),
            ("pours.0.resin_id", "honey", "",
             "Pour 1 uses the resin 'honey', which the scene does not hold; it holds casting, "
             "coating, deep."),
            ("tank.fill_height_mm", 150, "tank",
             "The fill line at 150 mm is above the walls, which are 134 mm high: raise the walls "
             "or lower the fill line."),
            ("format", "drawing", "format",
             "This is no Gondola scene: its format has to be 'gondola-scene'."),
            ("version", 9, "version",
             "This scene is of version 9; this Gondola reads up to 3. Open it with a newer "
             "Gondola."),
            ("version", "one", "version", "The version has to be a whole number from 1 to 3."),
        ]
        for path, value, field, sentence in rows:
            with self.subTest(path, value=value), self.assertRaises(SceneError) as caught:
                read_scene(changed(path, value))
            with self.subTest(path, value=value, what="words"):
                self.assertIn((field, sentence), caught.exception.problems)

    def test_files_that_are_no_scene(self):
        rows = [
            (b"", "This is not sound JSON: line 1, column 1: Expecting value."),
            (b"[1]", "A scene file holds one object with a format and a version."),
            (b"\xff\xfe\x00", "The text of this is not sound UTF-8."),
            (b'{"format": "gondola-scene",', "This is not sound JSON: line 1, column 28: "
             "Expecting property name enclosed in double quotes."),
            (b" " * (LARGEST_FILE + 1), "This file is over 48 MB; a scene is far smaller."),
            (b"[" * 100_000, "This JSON is nested deeper than anything here is."),
            (b"9" * 5000, "A number in this has more digits than any number here."),
            (b"[" + b"[]," * 300_000 + b"[]]",
             "This holds some 600,002 values; 500,000 at most are read: leave some out."),
            (b'{"format": "gondola-scene", "version": 1, "name": NaN}', None),
        ]
        for text, sentence in rows:
            with self.subTest(text[:20]), self.assertRaises(SceneError) as caught:
                read_scene(text)
            if sentence:
                self.assertEqual(caught.exception.message, sentence)

    def test_two_things_of_one_name(self):
        document = json.loads(quarry_pool().model_dump_json())
        document["figures"][1]["id"] = "wagon"
        with self.assertRaises(SceneError) as caught:
            read_scene(json.dumps(document))
        self.assertIn("two figures are called 'wagon'", caught.exception.message.lower())


class Migrating(unittest.TestCase):
    def test_steps_run_in_order_up_to_the_newest(self):
        steps = {
            1: lambda document: {**document, "trail": "a"},
            2: lambda document: {**document, "trail": document["trail"] + "b"},
        }
        old = {"format": "gondola-scene", "version": 1}
        self.assertEqual(
            migrate(old, steps, newest=3),
            {"format": "gondola-scene", "version": 3, "trail": "ab"},
        )
        self.assertEqual(old["version"], 1)
