"""Fails if a lock file names an address; `--mend` takes the ones that npm adds for funding out."""

from __future__ import annotations

import json
import sys
from pathlib import Path
from typing import Any

ROOT = Path(__file__).resolve().parent.parent
NPM_LOCK = ROOT / "web" / "package-lock.json"
LOCKS = [NPM_LOCK, ROOT / "requirements.txt", ROOT / "requirements-dev.txt"]


def without_addresses(value: Any) -> Any:
    """`value` without funding and resolved entries, at any depth."""
    if isinstance(value, dict):
        return {key: without_addresses(inner) for key, inner in value.items() if key not in ("funding", "resolved")}
    return [without_addresses(inner) for inner in value] if isinstance(value, list) else value


def main() -> int:
    if "--mend" in sys.argv:
        NPM_LOCK.write_text(json.dumps(without_addresses(json.loads(NPM_LOCK.read_text())), indent=2) + "\n")
    wrong = [str(lock.relative_to(ROOT)) for lock in LOCKS if "://" in lock.read_text()]
    if wrong:
        print(f"Lock files with addresses: {', '.join(wrong)}. Run `make lock`.", file=sys.stderr)
    return bool(wrong)


if __name__ == "__main__":
    sys.exit(main())
