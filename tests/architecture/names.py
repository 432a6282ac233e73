#!/usr/bin/env python3
"""Fails where what only one file knows has the name of what another file knows too, or of what a header gives.

Several files of a library are compiled at once, and a build of larger units takes more of them together: there the one
would be taken for the other, or in its place without a word. Functions of one name with unlike parameters may be two;
a function and a constant of one name may not.
Argument: the source folder."""
import collections
import pathlib
import re
import sys

source = pathlib.Path(sys.argv[1])
# What stands at the beginning of a line: a function by its name, one with its parameters, a type, a constant or several.
function = re.compile(
    r"^(?!class |struct |enum |using |namespace |return |extern |#|//)(?:[\w:<>,*&\[\]]+[ \n])+[*&]?(\w+)\(", re.M)
type_name = re.compile(r"^(?:struct|class|enum class|enum) (\w+)(?: final)?(?: :[^{;]*)? \{|^using (\w+) =", re.M)
constants = re.compile(r"^(?:inline |static )?(?:constexpr|const) [^;(]*?;|^(?:inline |static )?(?:constexpr|const) [^;(]*?\{", re.M)
constant_name = re.compile(r"(?<![.\w])(\w+)(?:\[\w*\])?(?: =|\{)")
parameters = re.compile(
    r"^(?!class |struct |enum |using |namespace |return |extern |#|//)(?:[\w:<>,*&\[\]]+[ \n])+[*&]?(\w+)(\([^{;]*?\)) *(?:const )?\{",
    re.M)
unnamed = re.compile(r"^namespace \{\n(?:([^\n]*)\n\}|(.*?)\n\}  // namespace)\n", re.M | re.S)


def space_of(text):
    found = re.search(r"^namespace ([\w:]+) \{", text, re.M)
    return found.group(1) if found else ""


def types_in(text):
    return {found.group(1) or found.group(2) for found in type_name.finditer(text)}


def kept_to_itself(text):
    """Types and constants by their name, functions by their name and the types of their parameters; and what they are,
    where two may be the same."""
    for found in type_name.finditer(text):
        line = text[found.start():].partition("\n")[0]
        yield found.group(1) or found.group(2), line if found.group(2) else None
    for found in constants.finditer(text):
        for name in constant_name.findall(found.group(0)):
            yield name, None
    for name, taken in parameters.findall(text):
        types = [re.sub(r" ?\w+(?: =.*)?$", "", one.strip()) for one in taken[1:-1].split(",")]
        yield f"{name}({', '.join(types)})", None


given = collections.defaultdict(list)
for header in sorted(source.rglob("*.h")):
    text = header.read_text()
    outside = unnamed.sub("", text)
    for name in function.findall(outside) + sorted(types_in(outside)):
        given[name].append((space_of(text), header))
if not given:
    sys.exit("no functions found")
problems = []
known_to = collections.defaultdict(list)
things_of = collections.defaultdict(lambda: collections.defaultdict(set))  # by name: functions and others, and their files
for file in sorted(source.rglob("*.cpp")):
    text = file.read_text()
    space = space_of(text)
    own = "".join((short or long) + "\n" for short, long in unnamed.findall(text))
    for name in sorted(set(function.findall(own)) | types_in(own)):
        for outer, header in given[name]:
            if f"{space}::".startswith(f"{outer}::"):
                problems.append(f"{file.relative_to(source)}: {name} hides that of {header.relative_to(source)}")
    library = file.relative_to(source).parts[0]
    for name, same in set(kept_to_itself(own)):
        known_to[library, space, name].append((str(file.relative_to(source)), same))
        plain, _, takes = name.partition("(")
        things_of[library, space, plain][bool(takes)].add(str(file.relative_to(source)))
if not any(known_to):
    sys.exit("nothing found that a file keeps to itself")
for (_, _, name), files in sorted(known_to.items()):
    alike = len({same for _, same in files}) == 1 and files[0][1]
    if len(files) > 1 and not alike:
        problems.append(f"{name} is known to {' and '.join(file for file, _ in files)}, to each as its own")
for (_, _, name), kinds in sorted(things_of.items()):
    if len(kinds) > 1:
        problems.append(f"{name} is a function in {' and '.join(sorted(kinds[True]))}, something else in {' and '.join(sorted(kinds[False]))}")
if problems:
    sys.exit("\n".join(problems))
