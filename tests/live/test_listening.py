"""Cameras that are listened to: what is noted of a million samples, floods, wrong clocks, silence; over datagrams and over lines."""

import socket
import threading
import time
from datetime import UTC, datetime, timedelta

import orjson
import pytest

from hextan.core.record import Source
from hextan.formats.tracked import datagram_of
from hextan.live.camera import (
    COUNTED_SECONDS,
    FOCUS_A_SECOND,
    FOCUS_SECONDS,
    MOST_A_SECOND,
    MOST_CHANGES,
    Camera,
    moment,
)
from hextan.live.cameras import Cameras as Listening
from hextan.live.listening import Datagrams, Lines, is_loopback
from hextan.standins.camera.serving import Cameras, Sender
from hextan.standins.camera.simulated import SimulatedCamera
from tests.formats.test_tracked import EBB

START = datetime(2026, 5, 18, 20, 0, tzinfo=UTC)


class Clock:
    """A time that is moved by hand."""

    def __init__(self):
        self.seconds = self.set_by = 0.0

    def monotonic(self):
        return self.seconds

    def now(self):
        return START + timedelta(seconds=self.seconds + self.set_by)


@pytest.fixture
def clock():
    return Clock()


@pytest.fixture
def heard(clock):
    return Camera(Source(unit="A", body="Ebb 64", on=True), clock.monotonic, clock.now)


def sample(n=1, **camera):
    return orjson.dumps({"timing": {"sequenceNumber": n}, "static": {"camera": camera}})


def test_the_newest_counts_and_since_when_it_is_so(heard, clock):
    heard.accept(sample(1, isoSpeed=800))
    clock.seconds = 60
    heard.accept(sample(2, isoSpeed=800))
    assert heard.standing().since["ei"] == moment(START)
    heard.accept(sample(3, isoSpeed=1600))
    standing = heard.standing()
    assert (standing.heard.ei, standing.since["ei"], standing.samples) == (
        1600,
        moment(START + timedelta(seconds=60)),
        3,
    )
    assert heard.facts_version == 2
    # A datagram that was overtaken on its way says nothing any more.
    assert not heard.accept(sample(2, isoSpeed=800))
    assert heard.standing().heard.ei == 1600
    # A camera that was switched off and on counts from the start.
    clock.seconds = 70
    assert heard.accept(sample(5000, isoSpeed=400))
    assert heard.accept(sample(1, isoSpeed=500))


def test_a_take_gets_what_changed_during_it_and_no_more(heard, clock):
    heard.accept(sample(1, isoSpeed=800, shutterAngle=180))
    for second, ei in ((10, 1600), (20, 800), (30, 3200)):
        clock.seconds = second
        heard.accept(sample(second, isoSpeed=ei, shutterAngle=180))
    said = heard.said(START + timedelta(seconds=15))
    assert [(c.what, c.was, c.now) for c in said.changes] == [("EI", "1600", "800"), ("EI", "800", "3200")]
    assert (said.samples, said.start) == (2, moment(START + timedelta(seconds=15)))
    assert heard.said(None).samples == 4
    assert heard.said(START + timedelta(seconds=31)) is None


@pytest.mark.parametrize("days", [-1, 1])
def test_a_clock_that_jumps_by_a_day_loses_nothing_that_was_said(heard, clock, days):
    """Somebody sets the laptop's clock in the middle of a take: by a day, either way."""
    heard.accept(sample(1, isoSpeed=800))
    clock.seconds = 10
    began = clock.now()
    heard.accept(sample(2, isoSpeed=1600))
    clock.set_by = days * 86_400
    clock.seconds = 12
    heard.accept(sample(3, isoSpeed=400))
    said = heard.said(began)
    assert said.samples >= 1
    assert "400" in [change.now for change in said.changes]
    assert heard.standing().silent_s == 0
    # The next take begins by the new clock, and gets its own alone.
    clock.seconds = 60
    later = clock.now()
    clock.seconds = 62
    heard.accept(sample(4, isoSpeed=200))
    after = heard.said(later)
    assert [change.now for change in after.changes] == ["200"]
    assert (after.samples, after.start) == (1, moment(later))


def test_silence_and_a_wrong_clock_are_told(heard, clock):
    assert (heard.standing().speaks, heard.standing().silent_s) == (False, None)
    late = int((START - timedelta(hours=2)).timestamp())
    heard.accept(orjson.dumps({"timing": {"sampleTimestamp": {"seconds": late, "nanoseconds": 0}}}))
    assert heard.standing().clock_off_s == pytest.approx(-7200)
    clock.seconds = 4.9
    assert heard.standing().speaks
    clock.seconds = 5.1
    assert not heard.standing().speaks


def test_no_word_counts_as_none_and_what_stood_still_stands(heard):
    heard.accept(sample(1, isoSpeed=800))
    for bad in (b"{", b"[1]", sample(2, isoSpeed=-5)):
        assert not heard.accept(bad)
    standing = heard.standing()
    assert (standing.heard.ei, standing.samples, standing.refused) == (800, 1, 3)
    assert "isoSpeed" in standing.problem


def test_another_source_is_not_heard(clock):
    camera = Camera(
        Source(unit="A", body="Ebb 64", on=True, secret="urn:uuid:mine"), clock.monotonic, clock.now
    )
    assert not camera.accept(sample(1, isoSpeed=800))
    assert camera.standing().foreign == 1
    assert camera.accept(orjson.dumps({"sourceId": "urn:uuid:mine"}))


def test_a_million_samples_cost_no_more_room_than_is_said(heard, clock):
    """Too many a second are counted and passed over; of what is heard the room is bounded, however long it goes on."""
    bodies = [
        orjson.dumps({"static": {"camera": {"isoSpeed": ei}}, "lens": {"focusDistance": 2.0}})
        for ei in (800, 1600)
    ]
    taken = 0
    for i in range(60 * 300):
        clock.seconds = i / 300
        taken += heard.accept(bodies[i % 2])
    assert heard.standing().dropped == 60 * 300 - taken
    assert 60 * MOST_A_SECOND * 0.95 < taken <= 61 * MOST_A_SECOND
    for second in range(COUNTED_SECONDS + 4000):
        clock.seconds = 100 + second
        heard.accept(bodies[second % 2])
    assert heard.room <= MOST_CHANGES + COUNTED_SECONDS + FOCUS_A_SECOND * FOCUS_SECONDS
    said = heard.said(None)
    assert (len(said.changes), said.left_out > 0) == (200, True)


def test_only_this_machine_is_listened_to():
    assert all(map(is_loopback, ("127.0.0.1", "127.8.8.8", "localhost", "::1", "[::1]", "239.135.1.9")))
    assert not any(map(is_loopback, ("0.0.0.0", "10.1.1.1", "example.org", "239.1.1.1", "", "2130706433")))


def wait_until(told, seconds=10.0):
    until = time.monotonic() + seconds
    while not told():
        assert time.monotonic() < until, "it does not come"
        time.sleep(0.02)


def free_udp_port():
    with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as probe:
        probe.bind(("127.0.0.1", 0))
        return probe.getsockname()[1]


@pytest.fixture
def listening():
    found = Listening()
    yield found
    found.close()


def simulated(unit="A", **setting):
    camera = SimulatedCamera(unit, EBB, rate=60.0)
    camera.command({"format": "Scope → 4096", "lens": "Merrow 65"} | setting)
    return camera


@pytest.mark.parametrize("host", ["127.0.0.1", "239.135.1.77"])
def test_datagrams_are_heard_by_their_source(listening, host):
    port = free_udp_port()
    a, b = simulated("A", ei=800), simulated("B", ei=1600)
    sources = [
        Source(unit=c.unit, body="Ebb 64", on=True, host=host, port=port, secret=c.source) for c in (a, b)
    ]
    senders = [Sender(c, port, host) for c in (a, b)]
    listening.listen(1, sources)
    for sender in senders:
        sender.start()
    try:
        cameras = listening.of(1)
        wait_until(lambda: all(c.standing().speaks for c in cameras.values()))
        assert [cameras[unit].standing().heard.ei for unit in "AB"] == [800, 1600]
        b.command({"ei": 3200})
        wait_until(lambda: cameras["B"].standing().heard.ei == 3200)
        assert cameras["A"].standing().heard.ei == 800
    finally:
        for sender in senders:
            sender.close()


def test_lines_are_fetched_with_their_word_and_fetched_again(listening):
    camera = simulated(ei=800)
    of = Cameras({"A": camera}, secret="low tide")
    server = of.serve(0)
    port = server.server_address[1]
    wrong = Source(
        unit="A", body="Ebb 64", on=True, way="http", port=port, path="/samples/A", secret="high tide"
    )
    listening.listen(1, [wrong])
    wait_until(lambda: "its word is another" in listening.of(1)["A"].standing().problem)
    listening.listen(1, [wrong.model_copy(update={"secret": "low tide"})])
    heard = listening.of(1)["A"]
    wait_until(lambda: heard.standing().speaks)
    # The camera goes away and comes back at the same place.
    server.shutdown()
    server.server_close()
    wait_until(lambda: heard.standing().samples > 0)
    listening.listen(1, [])
    assert listening.of(1) == {}


def test_a_flood_and_an_endless_line_do_no_harm(listening):
    camera = simulated(ei=800)
    port = free_udp_port()
    listening.listen(1, [Source(unit="A", body="Ebb 64", on=True, port=port)])
    heard = listening.of(1)["A"]
    data, over = datagram_of(camera.data()), threading.Event()

    def flood():
        with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as out:
            while not over.is_set():
                for _ in range(50):
                    out.sendto(data, ("127.0.0.1", port))
                time.sleep(0.001)

    thread = threading.Thread(target=flood)
    thread.start()
    try:
        wait_until(lambda: heard.standing().dropped > 20)
    finally:
        over.set()
        thread.join()
    before = heard.standing().samples
    # Two seconds at the most that is looked at, and what was allowed at the beginning.
    assert before <= 20 * MOST_A_SECOND
    of = Cameras({"A": camera})
    camera.command({"misbehave": "endless"})
    server = of.serve(0)
    listening.listen(1, [Source(unit="A", body="Ebb 64", on=True, way="http", port=server.server_address[1])])
    time.sleep(0.5)
    assert listening.of(1)["A"].standing().samples == 0
    server.shutdown()
    server.server_close()


def test_a_port_that_is_taken_is_told(listening):
    with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as taken:
        taken.bind(("127.0.0.1", 0))
        listening.listen(1, [Source(unit="A", body="Ebb 64", on=True, port=taken.getsockname()[1])])
        wait_until(lambda: "cannot be listened to" in listening.of(1)["A"].standing().problem)


def a_sample(source, n, ei):
    plain = {"sourceId": source, "timing": {"sequenceNumber": n}, "static": {"camera": {"isoSpeed": ei}}}
    return datagram_of(orjson.dumps(plain))


def test_a_thousand_wrong_keys_a_second_leave_the_right_ones_alone(listening):
    port, right = free_udp_port(), 0
    listening.listen(1, [Source(unit="A", body="Ebb 64", on=True, port=port, secret="urn:mine")])
    camera = listening.of(1)["A"]
    time.sleep(0.3)
    began = time.monotonic()
    with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as out:
        for n in range(2000):
            out.sendto(a_sample("urn:somebody", n, 100), ("127.0.0.1", port))
            if n % 20 == 0:
                right += 1
                out.sendto(a_sample("urn:mine", n, 800), ("127.0.0.1", port))
            time.sleep(max(0.0, began + n / 1000 - time.monotonic()))
    wait_until(lambda: camera.standing().samples + camera.standing().dropped >= right)
    standing = camera.standing()
    assert (standing.samples, standing.dropped, standing.heard.ei) == (right, 0, 800)
    # A busy machine loses a datagram now and then.
    assert 1900 <= standing.foreign <= 2000


def test_eight_cameras_on_one_port_are_heard_alike(listening):
    port, each = free_udp_port(), 100
    listening.listen(
        1, [Source(unit=u, body="Ebb 64", on=True, port=port, secret=f"urn:{u}") for u in "ABCDEFGH"]
    )
    time.sleep(0.3)
    with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as out:
        for n in range(each):
            for unit in "ABCDEFGH":
                out.sendto(a_sample(f"urn:{unit}", n, 800), ("127.0.0.1", port))
            time.sleep(0.012)
    cameras = listening.of(1)
    wait_until(lambda: all(c.standing().samples == each for c in cameras.values()))
    assert {c.standing().dropped for c in cameras.values()} == {0}


def test_two_without_a_key_on_one_port_are_told(listening):
    port = free_udp_port()
    listening.listen(1, [Source(unit=u, body="Ebb 64", on=True, port=port) for u in "AB"])
    wait_until(lambda: "give each its own" in listening.of(1)["B"].standing().problem)


@pytest.mark.parametrize("way", ["udp", "http"])
def test_any_fault_of_a_listener_is_told_and_tried_again(listening, monkeypatch, way):
    """A thread that dies says for ever that the camera has not said a word yet."""
    faults = iter([RuntimeError("something nobody thought of"), ValueError("and another")])
    port, name = free_udp_port(), "_receive" if way == "udp" else "_fetch"
    of = Datagrams if way == "udp" else Lines
    real = getattr(of, name)

    def fails(self, *arguments):
        fault = next(faults, None)
        if fault is not None:
            raise fault
        return real(self, *arguments)

    monkeypatch.setattr(of, name, fails)
    told, complain = [], Camera.complain
    monkeypatch.setattr(
        Camera, "complain", lambda self, problem: (told.append(problem), complain(self, problem))
    )
    server = None
    if way == "http":
        server = Cameras({"A": simulated(ei=800)}).serve(0)
        port = server.server_address[1]
    listening.listen(1, [Source(unit="A", body="Ebb 64", on=True, way=way, port=port, path="/samples/A")])
    camera = listening.of(1)["A"]
    wait_until(lambda: any("nobody thought of" in each for each in told), 30)
    wait_until(lambda: any("and another" in each for each in told), 30)
    with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as out:

        def heard():
            out.sendto(a_sample("", int(1e4 * time.monotonic()), 800), ("127.0.0.1", port))
            return camera.standing().samples > 0

        wait_until(heard, 30)
    if server:
        server.shutdown()
        server.server_close()
