#!/usr/bin/env python3
"""Fails where an arrow of the house runs backwards or in a circle, or where the core meets Qt, files or the clock.

An arrow is an #include from one room (a folder below the source folder, two levels deep) to another.
Argument: the source folder."""
import pathlib
import re
import sys

source = pathlib.Path(sys.argv[1])
# What each house may include, beside itself. The order is the order of the houses, lowest first.
may_include = {
    "core": [],
    "pictures": ["core"],
    "record": ["core"],
    "evaluation": ["core", "record"],
    "exchange": ["core", "pictures", "record", "evaluation"],
    "book": ["core", "pictures", "record", "evaluation", "exchange"],
    "gathering": ["core", "pictures", "record", "evaluation", "exchange", "book"],
    "drawing": ["core", "record", "evaluation"],
    "report": ["core", "pictures", "record", "evaluation", "exchange", "drawing"],
    "fonts": [],
    "paper": ["core", "pictures", "record", "evaluation", "drawing", "fonts"],
    "workbook": ["core", "record", "evaluation", "exchange", "drawing"],
    "publishing": ["core", "record", "evaluation", "exchange", "report", "workbook", "paper"],
    "instruments": ["core"],
    "desktop": ["core", "pictures", "record", "evaluation", "exchange", "book", "gathering", "drawing", "report", "workbook", "paper", "publishing", "instruments"],
    "cli": ["core", "pictures", "record", "evaluation", "exchange", "book", "gathering", "report", "workbook", "paper", "publishing"],
}
forbidden = [
    ("core", r'[<"](Q[A-Z]|Qt|q[a-z]+\.h)|<(filesystem|fstream|iostream|chrono|ctime)>', "the core knows no Qt, files or clock"),
    ("pictures", r'<Q[A-Z]|[<"](SQLite|sqlite)|<(filesystem|fstream)>', "pictures know no window, files or SQLite"),
    ("record", r'<Q[A-Z]|[<"](SQLite|sqlite)', "records know neither Qt nor SQLite"),
    ("evaluation", r'<Q[A-Z]|[<"](SQLite|sqlite)|<(filesystem|fstream)>', "what is worked out knows no Qt, SQLite or files"),
    ("exchange", r'<Q[A-Z]|[<"](SQLite|sqlite)', "files of others know neither Qt nor SQLite"),
    ("book", r'<Q[A-Z]', "the lab book knows no Qt"),
    ("gathering", r'<Q[A-Z]', "what is gathered for line-ups knows no Qt"),
    ("drawing", r'<Q[A-Z]|[<"](SQLite|sqlite)|<(filesystem|fstream)>', "drawings know no window, files or SQLite"),
    ("paper", r'<Q[A-Z]|[<"](SQLite|sqlite)|<(filesystem|fstream)>', "paper knows no window, files or SQLite"),
    ("workbook", r'<Q[A-Z]|[<"](SQLite|sqlite)', "workbooks know neither Qt nor SQLite"),
    ("report", r'<Q[A-Z]|[<"](SQLite|sqlite)', "reports know neither Qt nor SQLite"),
    ("cli", r'<Q[A-Z]', "the command line needs no screen"),
]
problems, arrows = [], {}


def room(path):
    return "/".join(path.parts[: min(2, len(path.parts) - 1)])


files = [f for pattern in ("*.h", "*.cpp") for f in source.rglob(pattern)]
if not files:
    sys.exit("no source files found")
for file in sorted(files):
    here = file.relative_to(source)
    for number, line in enumerate(file.read_text().splitlines(), 1):
        if not line.startswith("#include"):
            continue
        place = f"{here}:{number}: {line}"
        for house, pattern, why in forbidden:
            if here.parts[0] == house and re.search(pattern, line):
                problems.append(f"{why}: {place}")
        named = re.match(r'#include "([^"]+)"', line)
        if not named or named[1].split("/")[0] not in may_include:
            continue
        there = pathlib.PurePosixPath(named[1])
        if there.parts[0] != here.parts[0] and there.parts[0] not in may_include[here.parts[0]]:
            problems.append(f"{here.parts[0]} looks up at {there.parts[0]}: {place}")
        if room(here) != room(there):
            arrows.setdefault(room(here), {}).setdefault(room(there), place)


def find_circle():
    done = set()

    def walk(at, path):
        if at in path:
            return path[path.index(at):] + [at]
        if at in done:
            return None
        for to in sorted(arrows.get(at, {})):
            circle = walk(to, path + [at])
            if circle:
                return circle
        done.add(at)
        return None

    for start in sorted(arrows):
        circle = walk(start, [])
        if circle:
            return circle
    return None


circle = find_circle()
if circle:
    problems.append("a circle: " + " -> ".join(circle))
    problems += ["  " + arrows[a][b] for a, b in zip(circle, circle[1:])]
if problems:
    sys.exit("\n".join(problems))
