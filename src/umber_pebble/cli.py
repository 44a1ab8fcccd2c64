"""Command line: serve, demo, backup, restore, doctor, openapi."""

import argparse
import json
import sqlite3
import sys
import threading
from datetime import UTC, datetime
from pathlib import Path

from sqlalchemy.exc import SQLAlchemyError

from umber_pebble.config import Config, bridge_address, from_environment
from umber_pebble.core.errors import CoreError


def main(argv: list[str] | None = None) -> int:
    """Entry of the `umber-pebble` command."""
    defaults = from_environment()
    parser = argparse.ArgumentParser(prog="umber-pebble", description=__doc__)
    parser.add_argument(
        "--data", type=Path, default=defaults.data_dir, help="folder of the database and its backups"
    )
    commands = parser.add_subparsers(dest="command", required=True)
    serve = commands.add_parser("serve", help="run the app on this machine")
    serve.add_argument("--port", type=int, default=defaults.port)
    serve.add_argument("--clock", choices=("system", "driven"), default="system")
    serve.add_argument("--probe", help="HOST:PORT of a thermometer's bridge on this machine, or off")
    serve.add_argument(
        "--lan", action="store_true", help="answer paired devices of the kitchen's network too, by HTTPS"
    )
    serve.add_argument("--lan-port", type=int, default=8724)
    serve.add_argument("--demo", action="store_true", help="fill an empty workshop with the demo first")
    backup = commands.add_parser("backup", help="copy the database")
    backup.add_argument("file", type=Path, nargs="?", help="where to; default: a dated file in the backups folder")
    restore = commands.add_parser("restore", help="put a backup in place; stop the app first")
    restore.add_argument("file", type=Path)
    commands.add_parser("doctor", help="look the data folder over, and say the way out of what is wrong")
    probe = commands.add_parser("probe", help="run a simulated thermometer beside the app")
    probe.add_argument("--port", type=int, default=8723, help="port its bridge listens on")
    probe.add_argument("--app", default=f"http://127.0.0.1:{defaults.port}", help="the app whose bench it follows")
    probe.add_argument("--every", type=float, default=1.0, help="seconds between values")
    commands.add_parser("compile", help="compile the engine once, as set-up does")
    commands.add_parser("openapi", help="print the OpenAPI document")
    commands.add_parser("schema", help="print the JSON Schema of the workshop document")
    commands.add_parser("passes", help="print what a build may be made of, in Markdown")
    args = parser.parse_args(argv)
    try:
        bridge = bridge_address(args.probe) if getattr(args, "probe", None) else defaults.probe
        config = Config(
            args.data.resolve(),
            getattr(args, "port", defaults.port),
            getattr(args, "clock", "") == "driven",
            bridge,
        )
        return _COMMANDS[args.command](config, args)
    except (CoreError, OSError, ValueError, sqlite3.Error, SQLAlchemyError) as error:
        if isinstance(error, PermissionError) and error.filename is not None:
            print(
                f"umber-pebble: {error.filename} is not yours to write: make it yours (chown) and writable (chmod u+w), "
                "or use another folder with --data",
                file=sys.stderr,
            )
            return 1
        print(f"umber-pebble: {error}", file=sys.stderr)
        if not isinstance(error, CoreError | ValueError | FileNotFoundError | FileExistsError):
            print("umber-pebble doctor says what is wrong with the data folder, and the way out", file=sys.stderr)
        return 1


def _serve(config: Config, args: argparse.Namespace) -> int:
    from umber_pebble.app import NO_LAN, Lan, create_app, doors
    from umber_pebble.demo.fill import fill
    from umber_pebble.lan import certificate, own_addresses
    from umber_pebble.server import At, run
    from umber_pebble.services.start import open_workshop
    from umber_pebble.store.backups import fold_log, keep_daily
    from umber_pebble.store.lock import hold, own_only
    from umber_pebble.store.schema import check_file

    own_only(config.data_dir)
    with hold(config.data_dir):
        if config.database.exists():
            check_file(config.database)
        if args.demo:
            fill(config)
        lan, outside = NO_LAN, None
        if args.lan:
            names = own_addresses()
            authority, chain, key = certificate(config.data_dir / "tls", names)
            lan, outside = Lan(names, args.lan_port, authority), At("0.0.0.0", args.lan_port, chain, key, names[0])
        workshop = open_workshop(config)
        here, there = doors(create_app(workshop, config.probe, lan), workshop)
        threading.Thread(target=keep_daily, args=(config.database, config.backups), daemon=True).start()
        print(f"Umber Pebble is at http://127.0.0.1:{config.port}  (stop: Ctrl+C)", flush=True)
        if outside:
            print(
                f"In the kitchen's network: https://{lan.names[0]}:{args.lan_port}  (pair a device: Kitchen, Devices)",
                flush=True,
            )
        run([(here, At("127.0.0.1", config.port)), *([(there, outside)] if outside else [])])
        workshop.engine.dispose()
        fold_log(config.database)
    return 0


def _backup(config: Config, args: argparse.Namespace) -> int:
    from umber_pebble.services.full_disk import words_for_a_full_disk
    from umber_pebble.store.backups import backup, made_now

    if not config.database.exists():
        raise FileNotFoundError(f"there is no database at {config.database}")
    with words_for_a_full_disk():
        print(backup(config.database, args.file or made_now(config.backups)))
    return 0


def _restore(config: Config, args: argparse.Namespace) -> int:
    from umber_pebble.services.full_disk import words_for_a_full_disk
    from umber_pebble.store.backups import restore
    from umber_pebble.store.lock import hold, own_only

    if not args.file.is_file():
        raise FileNotFoundError(f"there is no file {args.file}")
    own_only(config.data_dir)
    with hold(config.data_dir), words_for_a_full_disk():
        kept = restore(args.file, config.database, config.backups)
    print(f"restored {args.file}" + (f"; what was there is kept as {kept}" if kept else ""))
    return 0


def _doctor(config: Config, args: argparse.Namespace) -> int:
    from umber_pebble.store.doctor import examine

    found = examine(config.database, config.backups, datetime.now(UTC))
    for finding in found:
        print(f"{'ok' if finding.fine else 'TO DO':5}  {finding.what}: {finding.words}")
    return 0 if all(finding.fine for finding in found) else 1


def _openapi(config: Config, args: argparse.Namespace) -> int:
    import tempfile

    from umber_pebble.api.routes import build
    from umber_pebble.services.access import Access
    from umber_pebble.services.probes import Probes
    from umber_pebble.services.runs import RunService
    from umber_pebble.services.start import open_workshop

    with tempfile.TemporaryDirectory() as folder:
        workshop = open_workshop(Config(Path(folder)))
        runs = RunService(workshop)
        document = build(workshop, runs, Probes(runs, None), Access(workshop)).document()
        workshop.engine.dispose()
    print(json.dumps(document, indent=1, sort_keys=True))
    return 0


def _passes(config: Config, args: argparse.Namespace) -> int:
    from umber_pebble.services.passes_page import page

    print(page(), end="")
    return 0


def _schema(config: Config, args: argparse.Namespace) -> int:
    from umber_pebble.services.archive import WorkshopFile

    print(json.dumps(WorkshopFile.model_json_schema(), indent=1, sort_keys=True))
    return 0


def _compile(config: Config, args: argparse.Namespace) -> int:
    from umber_pebble.services.planning import warm_up

    warm_up()
    return 0


def _probe(config: Config, args: argparse.Namespace) -> int:
    from umber_pebble.devices.protocol import Channel
    from umber_pebble.devices.simulator import Simulator

    channels = [Channel("a", "immersed", "Long probe"), Channel("b", "infrared", "Infrared")]
    simulator = Simulator(args.app, args.port, max(args.every, 0.05), channels)
    print(f"A simulated thermometer is at 127.0.0.1:{simulator.port}  (stop: Ctrl+C)", flush=True)
    try:
        simulator.run()
    except KeyboardInterrupt:
        return 0
    return 0


_COMMANDS = {
    "serve": _serve,
    "backup": _backup,
    "restore": _restore,
    "doctor": _doctor,
    "openapi": _openapi,
    "schema": _schema,
    "passes": _passes,
    "compile": _compile,
    "probe": _probe,
}

if __name__ == "__main__":
    sys.exit(main())
