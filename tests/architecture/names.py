#!/usr/bin/env python3
"""Fails where a function that only one file knows has the name of one that a header gives.

Several files of a library are compiled at once: there the one would be taken in place of the other, without a word.
Argument: the source folder."""
import collections
import pathlib
import re
import sys

source = pathlib.Path(sys.argv[1])
# A function at the beginning of a line, by its name.
function = re.compile(
    r"^(?!class |struct |enum |using |namespace |return |extern |#|//)(?:[\w:<>,*&\[\]]+[ \n])+[*&]?(\w+)\(", re.M)
unnamed = re.compile(r"^namespace \{\n(.*?)\n\}  // namespace\n", re.M | re.S)


def space_of(text):
    found = re.search(r"^namespace ([\w:]+) \{", text, re.M)
    return found.group(1) if found else ""


given = collections.defaultdict(list)
for header in sorted(source.rglob("*.h")):
    text = header.read_text()
    for name in function.findall(unnamed.sub("", text)):
        given[name].append((space_of(text), header))
if not given:
    sys.exit("no functions found")
problems = []
for file in sorted(source.rglob("*.cpp")):
    text = file.read_text()
    space = space_of(text)
    for name in sorted({name for part in unnamed.findall(text) for name in function.findall(part)}):
        for outer, header in given[name]:
            if f"{space}::".startswith(f"{outer}::"):
                problems.append(f"{file.relative_to(source)}: {name}() hides that of {header.relative_to(source)}")
if problems:
    sys.exit("\n".join(problems))
