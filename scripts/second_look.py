"""After a run of the suite that failed: were it few browser tests, they are run once more, alone and one by one.

A machine that is busy with something else can let a browser's wait run out. What fails twice fails; what passed only
alone is told by name, because a test that needs a quiet machine is a fault to be cured.
"""

from __future__ import annotations

import json
import subprocess
import sys
from pathlib import Path

LAST = Path(".stamp/pytest/v/cache/lastfailed")
MOST = 3


def main() -> int:
    failed = sorted(json.loads(LAST.read_text("utf-8"))) if LAST.is_file() else []
    if not failed or len(failed) > MOST or not all(name.startswith("tests/browser/") for name in failed):
        return 1
    print(f"Once more, alone: {', '.join(failed)}", flush=True)
    status = subprocess.run([sys.executable, "-m", "pytest", "-q", "-n", "0", *failed], check=False).returncode
    if status == 0:
        print(f"Passed alone, failed beside others; to be cured: {', '.join(failed)}")
    return status


if __name__ == "__main__":
    sys.exit(main())
