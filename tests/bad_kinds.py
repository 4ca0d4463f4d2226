"""Heavy work that goes wrong in every way it can, and some that goes well."""

from __future__ import annotations

import os
import sys
import time

from lean_notch.ground.errors import OutOfRange
from tasks.kinds import Kind, register


def add(given, tell):
    tell(0.5, "adding")
    time.sleep(given.document.get("seconds", 0))
    return str(sum(given.document["numbers"]) + len(given.data)).encode()


def count(given, tell):
    """Tells what it has so far, then what is too long to be told, until it is let go."""
    tell(0.5, "counting", lambda: {"done": 1, "of": 2, "found": 1, "first": ["One is open."]})
    time.sleep(0.2)
    tell(0.6, "counting", lambda: {"done": 2, "of": 2, "found": 1, "first": ["x" * 20_000]})
    while not os.path.exists(given.document["until"]):
        time.sleep(0.02)
    return b"counted"


def refuse(given, tell):
    raise OutOfRange("It is 9 mm.", fix="Use 8 mm.", field="width")


def hang(given, tell):
    time.sleep(60)


def spin(given, tell):
    while True:
        pass


def eat(given, tell):
    eaten = []
    while True:
        eaten.append(bytearray(50_000_000))


def die(given, tell):
    os._exit(3)


def babble(given, tell):
    os.write(int(sys.argv[1]), b"\x00\x00\x00\x04rubb")
    time.sleep(60)


def lie(given, tell):
    os.write(int(sys.argv[1]), b"\x00\x00\x00\x19" + b'{"task": -1,"done": true} '[:25])
    time.sleep(60)


def boast(given, tell):
    os.write(int(sys.argv[1]), b"\x7f\xff\xff\xff")
    time.sleep(60)


def fail(given, tell):
    raise KeyError("Aunt Edda")


def database(given, tell):
    from designs.models import Design

    return str(Design.objects.count()).encode()


for name, compute in list(globals().items()):
    if callable(compute) and getattr(compute, "__module__", "") == __name__:
        seconds = 20.0 if name in ("eat", "add") else 1.0  # what is to go well has time, however busy the machine is
        register(Kind(name, f"To {name}", seconds, compute, (lambda task, answer: lambda: answer + b"!")))


register(Kind("counted", "To count", 60.0, count, stored=True))


def lose(task, answer):
    raise RuntimeError("Aunt Edda")


def lose_late(task, answer):
    return lambda: lose(task, answer)


register(Kind("leave", "To be left alone", 20.0, hang, patience=0.3))
register(Kind("lose", "To lose", 1.0, add, lose))
register(Kind("lose-late", "To lose late", 1.0, add, lose_late))
