"""Devices: the line protocol, what simulated ones show, and who listens to them."""

from __future__ import annotations

import json
import socket
import time
import tracemalloc
import unittest

from bench.instruments.hub import Hub
from bench.instruments.protocol import Mass, Temperature, parse, written
from bench.instruments.recording import HUB, RECORDER
from bench.instruments.serving import Served
from bench.instruments.simulated import Scale, Thermometer
from bench.models import Run
from bench.tests.test_runs import RunCase, event
from gondola_core.samples import quarry_pool


def until(holds, seconds=8.0):
    """Waits until something holds; its last value."""
    end = time.monotonic() + seconds
    while time.monotonic() < end:
        found = holds()
        if found:
            return found
        time.sleep(0.05)
    return holds()


class Lines(unittest.TestCase):
    def test_readings_go_through_their_lines(self):
        for reading in (Mass(82.6, True), Mass(-0.1, False), Mass(None, False), Mass(0.0, True),
                        Temperature(1, 26.4), Temperature(2, None), Temperature(2, -3.0)):
            with self.subTest(reading):
                self.assertEqual(parse(written(reading)), reading)

    def test_what_is_no_reading_is_passed_over(self):
        for line in ("", "mass", "mass 5 kg steady", "temp 3 20 C", "temp 1 nan C", "mass 1e9 g steady", "x" * 500):
            with self.subTest(line):
                self.assertIsNone(parse(line))


class Simulated(unittest.TestCase):
    def shown(self, scale, at_s):
        return scale.reading(at_s)[0]

    def test_a_hand_pours_to_the_mark_and_the_scale_comes_to_rest(self):
        scale = Scale(seed=3)
        scale.tell("put 12")
        scale.tell("tare")
        self.assertTrue(scale.tell("pour 82.6"))
        masses = [self.shown(scale, 0.1 * n) for n in range(400)]
        self.assertLess(masses[20].mass_g, 60)
        self.assertFalse(masses[20].steady)
        self.assertAlmostEqual(masses[-1].mass_g, 82.6, delta=0.25)
        self.assertTrue(masses[-1].steady)

    def test_a_shaky_hand_pours_more(self):
        scale = Scale(seed=3, shaky=0.06)
        scale.tell("pour 100")
        shown = [self.shown(scale, 0.1 * n) for n in range(400)]
        self.assertAlmostEqual(shown[-1].mass_g, 106.0, delta=0.3)

    def test_overload_plugs_drift_and_nonsense(self):
        scale = Scale(most_g=500, drift_g_h=36.0)
        scale.tell("put 600")
        self.assertIsNone(self.shown(scale, 1.0).mass_g)
        scale.tell("take off")
        self.assertAlmostEqual(self.shown(scale, 101.0).mass_g, 1.0, delta=0.2)
        scale.tell("unplug")
        self.assertEqual(scale.reading(102.0), [])
        for nonsense in ("pour", "pour x", "pour nan", "pour 1e12", "sing", ""):
            with self.subTest(nonsense):
                self.assertFalse(scale.tell(nonsense))

    def test_a_thermometer_and_its_faults(self):
        thermometer = Thermometer(lambda at: (20.0 + at, 22.0))
        rows = [("fault none", 30.0), ("fault offset 5", 35.0), ("fault open", None)]
        for command, shown in rows:
            with self.subTest(command):
                self.assertTrue(thermometer.tell(command))
                resin, room = thermometer.reading(10.0)
                self.assertAlmostEqual(room.measured_c, 22.0, delta=0.7)
                if shown is None:
                    self.assertIsNone(resin.measured_c)
                else:
                    self.assertAlmostEqual(resin.measured_c, shown, delta=0.7)
        thermometer.tell("fault none")
        thermometer.reading(10.0)
        thermometer.tell("fault stuck")
        self.assertAlmostEqual(thermometer.reading(60.0)[0].measured_c, 30.0, delta=0.7)
        self.assertFalse(thermometer.tell("fault offset"))

    def test_the_same_seed_shows_the_same(self):
        def run(seed):
            scale = Scale(seed=seed)
            scale.tell("pour 40")
            return [self.shown(scale, 0.1 * n).mass_g for n in range(50)]

        self.assertEqual(run(5), run(5))
        self.assertNotEqual(run(5), run(6))


class Listening(unittest.TestCase):
    def served(self, device, **more):
        served = Served(device, **more).start()
        self.addCleanup(served.server_close)
        self.addCleanup(served.shutdown)
        return served

    def test_a_scale_is_heard_and_spoken_to(self):
        hub = Hub()
        hub.connect(1, "scale", self.served(Scale(drift_g_h=0)).port)
        self.addCleanup(hub.let_go, 1, "scale")
        self.assertTrue(until(lambda: hub.told(1)[0]["plugged"]))
        self.assertTrue(hub.say(1, "scale", "put 25"))
        self.assertTrue(until(lambda: abs((hub.told(1)[0]["mass_g"] or 0) - 25) < 0.5))
        self.assertEqual(hub.told(2), [])
        self.assertFalse(hub.say(1, "scale", "put 25\nput 25"))

    def test_a_device_that_is_not_there_is_called_until_it_is(self):
        with socket.socket() as free:
            free.bind(("127.0.0.1", 0))
            port = free.getsockname()[1]
        hub = Hub()
        hub.connect(1, "scale", port)
        self.addCleanup(hub.let_go, 1, "scale")
        self.assertFalse(hub.told(1)[0]["plugged"])
        self.served(Scale(), port=port)
        self.assertTrue(until(lambda: hub.told(1)[0]["plugged"]))

    def test_what_never_spoke_as_a_device_is_told_nothing(self):
        heard = []
        with socket.socket() as other:
            other.bind(("127.0.0.1", 0))
            other.listen(1)
            hub = Hub()
            hub.connect(1, "scale", other.getsockname()[1])
            self.addCleanup(hub.let_go, 1, "scale")
            wire, _ = other.accept()
            wire.settimeout(0.5)
            until(lambda: hub._links[(1, "scale")].socket)
            self.assertFalse(hub.say(1, "scale", "tare"))
            with self.assertRaises(TimeoutError):
                heard.append(wire.recv(100))
            wire.close()
        self.assertEqual(heard, [])

    def test_an_hour_of_ten_readings_a_second_keeps_nothing(self):
        """Thirty-six thousand readings through the hub's own path."""
        hub, scale = Hub(), Scale()
        hub.connect(1, "scale", 9)
        self.addCleanup(hub.let_go, 1, "scale")
        link = hub._links[(1, "scale")]

        def hear(count):
            for n in range(count):
                for reading in scale.reading(0.1 * n):
                    hub._take(1, link, parse(written(reading)))

        hear(2000)
        tracemalloc.start()
        try:
            before = tracemalloc.get_traced_memory()[0]
            hear(36_000)
            grown = tracemalloc.get_traced_memory()[0] - before
        finally:
            tracemalloc.stop()
        self.assertEqual(link.number, 38_000)
        self.assertLess(grown, 200_000)


class Devices(RunCase):
    def tearDown(self):
        for kind in ("scale", "thermometer"):
            HUB.let_go(self.owner.pk, kind)

    def put(self, kind, **body):
        return self.client.put(f"/api/instruments/{kind}", json.dumps(body), content_type="application/json")

    def test_a_simulated_scale_belongs_to_a_run(self):
        self.assertEqual(self.put("scale").status_code, 422)
        run = self.begin()["run"]["id"]
        self.assertTrue(self.put("scale", run_id=run).json()[0]["simulated"])
        self.assertTrue(until(lambda: self.client.get("/api/instruments").json()[0]["plugged"]))
        self.post("/instruments/scale/say", {"line": "put 50"})
        self.assertTrue(until(lambda: abs((self.client.get("/api/instruments").json()[0]["mass_g"] or 0) - 50) < 0.5))
        self.assertEqual(self.client.delete("/api/instruments/scale").json(), [])
        self.assertEqual(self.post("/instruments/scale/say", {"line": "tare"}).status_code, 422)

    def test_other_programs_of_the_machine_are_nobodys_to_talk_to(self):
        for port in (22, 6379, 7299, 7400):
            with self.subTest(port):
                refused = self.put("scale", port=port)
                self.assertContains(refused, f"from 7300 to 7399; this says {port}", status_code=422)
        self.assertEqual(self.client.get("/api/instruments").json(), [])

    def test_a_thermometer_becomes_events_of_the_run_one_a_minute(self):
        run = self.begin()["run"]["id"]
        self.tell({"run": {"id": run}}, event("pouring", pour_id=quarry_pool().pours[0].id))
        for _ in range(3):
            for channel, shown in ((1, 26.4), (2, 21.0)):
                RECORDER.record(self.owner.pk, Temperature(channel, shown))
        bodies = [one.body for one in Run.objects.get(pk=run).events.all() if one.body["kind"] == "measured"]
        self.assertEqual([(one["what"], one["measured_c"]) for one in bodies], [("resin", 26.4), ("room", 21.0)])

    def test_a_plain_server_has_no_stream(self):
        run = self.begin()["run"]["id"]
        self.assertEqual(self.client.get(f"/api/runs/{run}/stream").status_code, 204)
