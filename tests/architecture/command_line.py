#!/usr/bin/env python3
"""Fails where a command takes a number or says something by any way around cli/options and cli/say.

Argument: the source folder."""
import pathlib
import re
import sys

source = pathlib.Path(sys.argv[1]) / "cli"
rules = {
    "options": re.compile(r"->add_option|\.add_option|CLI::Range|\bsscanf\b|\bstrto[dlf]|\bsto[dilf]\(|CLI::AsNumber|parse_number"),
    "say": re.compile(r"std::(?:cout|cerr|clog|print)|fmt::print|\b(?:printf|fprintf|puts|fputs|fwrite|putchar)\s*\("),
}
faults = []
for file in sorted(source.glob("*.*")):
    if file.suffix not in (".cpp", ".h"):
        continue
    for number, line in enumerate(file.read_text().splitlines(), 1):
        code = re.sub(r"//.*", "", line)
        for home, rule in rules.items():
            if file.stem != home and rule.search(code):
                faults.append(f"cli/{file.name}:{number}: {line.strip()} (only cli/{home} may)")
print("\n".join(faults))
sys.exit(bool(faults))
