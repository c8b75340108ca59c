"""Many reviewers at once, for a moment: nothing fails.  How quick it is, is measured by bench/load.py itself."""

from __future__ import annotations

import subprocess
import sys

from living import ROOT, Application


def test_many_reviewers_at_once_are_all_answered(application: Application) -> None:
    bench = [sys.executable, str(ROOT / "bench/load.py"), application.address]
    ran = subprocess.run(
        [*bench, "--people", "30", "--seconds", "4", "--pause", "1", "--reviews", "2"], capture_output=True, text=True
    )
    print(ran.stdout)
    assert ran.returncode == 0, ran.stdout + ran.stderr
    assert ran.stdout.rstrip().endswith("0 failed")
