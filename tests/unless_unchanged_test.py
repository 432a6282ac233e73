"""Holds unless_unchanged.py to what it promises, with small programs in a folder of its own."""

import os
import subprocess
import sys
import tempfile
import unittest
from pathlib import Path

RUNNER = Path(__file__).with_name("unless_unchanged.py")


class UnlessUnchanged(unittest.TestCase):
    def setUp(self):
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.folder = Path(folder.name)
        self.beside = self.folder / "beside"
        self.beside.write_text("first")
        self.ran = self.folder / "ran"
        self.program = self.folder / "program"
        self.write_program(0)

    def write_program(self, ends_with):
        self.program.write_text(f"#!/bin/sh\necho >> {self.ran}\nexit {ends_with}\n")
        self.program.chmod(0o755)

    def run_it(self, *arguments, **environment):
        known = {k: v for k, v in os.environ.items() if k != "CI" and not k.startswith("GTEST_")}
        return subprocess.run(
            [sys.executable, RUNNER, self.folder / "passed" / "it", self.beside, "--", self.program, *arguments],
            env=known | environment, stdout=subprocess.DEVNULL).returncode

    def runs(self):
        return len(self.ran.read_text().splitlines()) if self.ran.exists() else 0

    def test_what_passed_is_skipped_until_something_changes(self):
        self.assertEqual(self.run_it(), 0)
        self.assertEqual(self.run_it(), 77)
        self.assertEqual(self.runs(), 1)
        self.beside.write_text("second")
        self.assertEqual(self.run_it(), 0)
        self.assertEqual(self.run_it("other argument"), 0)
        self.assertEqual(self.run_it("other argument", GTEST_SHARD_INDEX="1"), 0)
        self.write_program(0)
        self.program.write_text(self.program.read_text() + "\n")
        self.assertEqual(self.run_it(), 0)
        self.assertEqual(self.runs(), 5)

    def test_what_failed_runs_again(self):
        self.write_program(3)
        self.assertEqual(self.run_it(), 3)
        self.assertEqual(self.run_it(), 3)
        self.assertEqual(self.runs(), 2)

    def test_a_failure_takes_back_that_it_passed(self):
        self.assertEqual(self.run_it(), 0)
        sound = self.program.read_text()
        self.write_program(1)
        self.assertEqual(self.run_it(), 1)
        self.program.write_text(sound)
        self.assertEqual(self.run_it(), 0)

    def test_where_all_is_to_run_nothing_is_skipped(self):
        self.assertEqual(self.run_it(), 0)
        self.assertEqual(self.run_it(CI="true"), 0)


unittest.main()
