"""Command line: serve, demo, backup, restore, openapi."""

import argparse
import json
import sys
import threading
from datetime import UTC, datetime
from pathlib import Path

from umber_pebble.config import Config, bridge_address, from_environment

THREADS = 40


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
    probe = commands.add_parser("probe", help="run a simulated thermometer beside the app")
    probe.add_argument("--port", type=int, default=8723, help="port its bridge listens on")
    probe.add_argument("--app", default=f"http://127.0.0.1:{defaults.port}", help="the app whose bench it follows")
    probe.add_argument("--every", type=float, default=1.0, help="seconds between values")
    commands.add_parser("compile", help="compile the engine once, as set-up does")
    commands.add_parser("openapi", help="print the OpenAPI document")
    commands.add_parser("schema", help="print the JSON Schema of the workshop document")
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
    except (OSError, ValueError) as error:
        print(f"umber-pebble: {error}", file=sys.stderr)
        return 1


def _serve(config: Config, args: argparse.Namespace) -> int:
    from cheroot.ssl.builtin import BuiltinSSLAdapter
    from cheroot.wsgi import Server

    from umber_pebble.app import NO_LAN, Lan, create_app, lan_door
    from umber_pebble.demo.fill import fill
    from umber_pebble.lan import certificate, own_addresses
    from umber_pebble.services.start import open_workshop

    if args.demo:
        fill(config)
    lan = NO_LAN
    if args.lan:
        names = own_addresses()
        authority, chain, key = certificate(config.data_dir / "tls", names)
        lan = Lan(names, args.lan_port, authority)
    app = create_app(open_workshop(config), config.probe, lan)
    server = Server(("127.0.0.1", config.port), app, numthreads=THREADS)
    server.prepare()
    print(f"Umber Pebble is at http://127.0.0.1:{config.port}  (stop: Ctrl+C)", flush=True)
    if args.lan:
        outside = Server(("0.0.0.0", args.lan_port), lan_door(app), numthreads=THREADS)
        outside.ssl_adapter = BuiltinSSLAdapter(str(chain), str(key))
        outside.prepare()
        threading.Thread(target=outside.serve, daemon=True).start()
        print(
            f"In the kitchen's network: https://{lan.names[0]}:{args.lan_port}  (pair a device: Kitchen, Devices)",
            flush=True,
        )
    try:
        server.serve()
    except KeyboardInterrupt:
        server.stop()
    return 0


def _stamp() -> str:
    return f"{datetime.now(UTC):%Y%m%dT%H%M%S}"


def _backup(config: Config, args: argparse.Namespace) -> int:
    from umber_pebble.store.engine import backup

    if not config.database.exists():
        raise FileNotFoundError(f"there is no database at {config.database}")
    print(backup(config.database, args.file or config.backups / f"{_stamp()}.db"))
    return 0


def _restore(config: Config, args: argparse.Namespace) -> int:
    from umber_pebble.store.engine import restore

    if not args.file.is_file():
        raise FileNotFoundError(f"there is no file {args.file}")
    kept = restore(args.file, config.database, config.backups, _stamp())
    print(f"restored {args.file}" + (f"; what was there is kept as {kept}" if kept else ""))
    return 0


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
    "openapi": _openapi,
    "schema": _schema,
    "compile": _compile,
    "probe": _probe,
}

if __name__ == "__main__":
    sys.exit(main())
