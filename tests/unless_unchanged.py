"""Runs a suite, unless it passed with the very same files: a change of one library need not run what it cannot reach.

unless_unchanged.py STAMP FILE... -- PROGRAM ARGUMENT...

STAMP keeps the check sum of the program, its arguments, its share of the suite and the other files that it works with, as
they were when it last passed. Ends with 77 where nothing has changed since; with CI set in the environment all is run
and nothing kept.
"""

import hashlib
import os
import subprocess
import sys
from pathlib import Path

SKIPPED = 77


def check_sum(files, command):
    total = hashlib.blake2b()
    for word in [*command, os.environ.get("GTEST_TOTAL_SHARDS", ""), os.environ.get("GTEST_SHARD_INDEX", "")]:
        total.update(word.encode() + b"\0")
    for name in files:
        with open(name, "rb") as file:
            while block := file.read(1 << 20):
                total.update(block)
        total.update(b"\0")
    return total.hexdigest()


def run(command):
    result = subprocess.run(command).returncode
    return result if result >= 0 else 1


def main():
    stamp, *rest = sys.argv[1:]
    split = rest.index("--")
    files, command = rest[:split], rest[split + 1 :]
    stamp = Path(stamp)
    if os.environ.get("CI"):
        stamp.unlink(missing_ok=True)
        return run(command)
    now = check_sum([command[0], *files], command)
    if stamp.exists() and stamp.read_text() == now:
        print("Passed before with the very same files.")
        return SKIPPED
    stamp.unlink(missing_ok=True)
    result = run(command)
    if result == 0:
        stamp.parent.mkdir(parents=True, exist_ok=True)
        stamp.write_text(now)
    return result


sys.exit(main())
