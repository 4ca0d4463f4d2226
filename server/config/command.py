"""`lean-notch-server`: what whoever runs the server needs, without a shell into Django."""

from __future__ import annotations

import argparse
import getpass
import os
import sys
from collections.abc import Sequence
from pathlib import Path

from django.db import DatabaseError
from ground import folder as data_folder
from lean_notch.ground.errors import NotchError


def main(arguments: Sequence[str] | None = None) -> int:
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "config.settings")
    asked = _parser().parse_args(arguments)
    try:
        return int(asked.run(asked))
    except NotchError as error:
        print(f"{error.why}\n{error.fix}", file=sys.stderr)
        return 1
    except (DatabaseError, OSError) as error:
        # Whoever runs the server reads what is wrong, not where in the code it was met.
        from ground.failures import told

        _, problem = told(error, "")
        print(f"{problem.why}\n{problem.fix}\n({type(error).__name__}: {error})", file=sys.stderr)
        return 1
    except KeyboardInterrupt:
        return 130


def _parser() -> argparse.ArgumentParser:
    parser = argparse.ArgumentParser(
        prog="lean-notch-server", description="Runs and looks after the server. LEAN_NOTCH_DATA names the data folder."
    )
    verbs = parser.add_subparsers(required=True, metavar="COMMAND")

    start = verbs.add_parser("start", help="brings the database up to date and starts the server")
    start.add_argument("--port", type=int, default=8000)
    start.add_argument("--host", default="127.0.0.1", help="the address to listen at (default: this machine only)")
    start.set_defaults(run=_start)

    first = verbs.add_parser("first-account", help="sets up an empty workshop with the account of its first maker")
    first.add_argument("name")
    first.set_defaults(run=_first_account)

    backup = verbs.add_parser("backup", help="writes everything into one file, also while the server runs")
    backup.add_argument("file", type=Path, help="the zip file to write; it must not be there yet")
    backup.set_defaults(run=_backup)

    restore = verbs.add_parser("restore", help="puts a backup into the data folder; the server must not run")
    restore.add_argument("file", type=Path)
    restore.set_defaults(run=_restore)

    check = verbs.add_parser("check", help="looks for damage, orphans and jobs that no longer build")
    check.set_defaults(run=_check)
    return parser


def _set_up() -> None:
    import django

    django.setup()


def _start(asked: argparse.Namespace) -> int:
    import uvicorn
    from django.conf import settings

    _set_up()
    if settings.WRITABLE:
        data_folder.take(data_folder.named())
        _migrate()
        data_folder.give_back()
    else:
        print(
            f"{data_folder.named()} cannot be written: jobs are shown as they are, and nothing is saved.",
            file=sys.stderr,
        )
    uvicorn.run(
        "config.asgi:application", host=asked.host, port=asked.port, log_level="warning", timeout_graceful_shutdown=2
    )
    return 0


def _migrate() -> None:
    from django.core.management import call_command

    call_command("migrate", verbosity=0)


def _first_account(asked: argparse.Namespace) -> int:
    _set_up()
    from accounts.first import add_first

    if sys.stdin.isatty():
        password = getpass.getpass("Password: ")
        if getpass.getpass("The same again: ") != password:
            print("The two are not the same. Nothing was set up.", file=sys.stderr)
            return 1
    else:
        password = sys.stdin.readline().rstrip("\n")
    _migrate()
    add_first(asked.name, password)
    print(f"{asked.name.strip()} can sign in. Start the server with: lean-notch-server start")
    return 0


def _backup(asked: argparse.Namespace) -> int:
    from upkeep.backups import write_backup

    gone = write_backup(data_folder.named(), asked.file)
    print(f"{asked.file}: {asked.file.stat().st_size / 1e6:.1f} MB. The server's secret is in it: keep it private.")
    if gone:
        print(f"These kept files are gone, add them again: {', '.join(gone)}", file=sys.stderr)
    return int(bool(gone))


def _restore(asked: argparse.Namespace) -> int:
    from upkeep.backups import restore_backup

    place = data_folder.named()
    data_folder.take(place)
    aside = restore_backup(asked.file, place)
    _set_up()
    _migrate()
    print(f"Restored into {place}." + (f" What was there before is in {aside}." if aside else ""))
    return 0


def _check(_: argparse.Namespace) -> int:
    _set_up()
    from upkeep.check import faults

    found = 0
    for fault in faults(data_folder.named()):
        print(fault)
        found += 1
    print("Nothing wrong was found." if not found else f"{found} faults.")
    return int(bool(found))
