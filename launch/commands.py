"""The commands of `./spirrel`, all but the craft's own command line."""

from __future__ import annotations

import argparse
import os
import subprocess
from collections.abc import Sequence

from launch import checks, server, supply, tools
from launch.paths import FRONTEND, ROOT, VENV, python
from launch.say import Stop

PORT = 8770
BESIDE_STUDIO = ("screen", "load", "attacks", "faults")
"""What is measured on a running studio of its own."""


def _parser() -> argparse.ArgumentParser:
    parser = argparse.ArgumentParser(prog="./spirrel", description="Spirrel: from a shape to a written pattern.")
    commands = parser.add_subparsers(dest="command", required=True)
    up = commands.add_parser("up", help="install what is missing, build, and serve until Ctrl-C")
    up.add_argument("--port", type=int, default=PORT)
    up.add_argument("--no-demo", action="store_true", help="do not load the demo studio")
    commands.add_parser("down", help="stop what a crash left running")
    test = commands.add_parser("test", help="run every check, or those of some groups")
    test.add_argument("groups", nargs="*", metavar="craft|studio|frontend|browser")
    commands.add_parser("demo", help="load the demo studio again beside what is there")
    commands.add_parser("fmt", help="format all code")
    commands.add_parser("api", help="write the API description and the front end's types anew")
    commands.add_parser("shots", help="take the pictures of docs/screenshots anew")
    bench = commands.add_parser("bench", help="measure speed and truth")
    bench.add_argument("names", nargs="*")
    backup = commands.add_parser("backup", help="write everything to one file")
    backup.add_argument("file", nargs="?")
    backup.add_argument("--keep", type=int, help="throw away all but the latest so many")
    verify = commands.add_parser("verify", help="read a backup in full, and change nothing")
    verify.add_argument("file")
    restore = commands.add_parser("restore", help="put everything back from a backup")
    restore.add_argument("file")
    supply = commands.add_parser("supply", help="write down the licences, and a bill of all parts in CycloneDX")
    supply.add_argument("folder", nargs="?")
    commands.add_parser("craft", help="the craft's own command line", add_help=False)
    return parser


def _bench(names: Sequence[str]) -> int:
    tools.virtual_environment(dev=True)
    one_thread = {"OPENBLAS_NUM_THREADS": "1", "OMP_NUM_THREADS": "1"}
    return subprocess.run([python(), "-m", "benchmarks", *names], cwd=ROOT, env={**os.environ, **one_thread}).returncode


def _fmt() -> int:
    tools.virtual_environment(dev=True)
    env = tools.node_packages()
    ruff = str(VENV / "bin" / "ruff")
    lines = [
        ([ruff, "check", "--fix", "-q", "."], ROOT),
        ([ruff, "format", "-q", "."], ROOT),
        (["npx", "--no-install", "biome", "check", "--write", "."], FRONTEND),
    ]
    return max(subprocess.run(line, cwd=cwd, env=env).returncode for line, cwd in lines)


def _api() -> int:
    tools.virtual_environment(dev=True)
    env = tools.node_packages()
    plain = {**env, "DJANGO_SETTINGS_MODULE": "studio.settings_test"}
    for words in (["export_openapi", "docs/openapi.json"], ["export_words", "frontend/src/api/words.json"]):
        done = subprocess.run([python(), "-m", "django", *words], cwd=ROOT, env=plain)
        if done.returncode:
            return done.returncode
    return subprocess.run(
        [
            "npx",
            "--no-install",
            "openapi-typescript",
            "../docs/openapi.json",
            "-o",
            "src/api/schema.ts",
            "--default-non-nullable",
            "false",
        ],
        cwd=FRONTEND,
        env=env,
    ).returncode


def _backup(file: str | None, keep: int | None) -> int:
    words = ["backup", *([os.path.abspath(file)] if file else []), *(["--keep", str(keep)] if keep is not None else [])]
    return server.with_database(lambda env: _shown(env, *words))


def _restore(file: str) -> int:
    return server.with_database(
        lambda env: _shown(env, "migrate", "-v", "0") or _shown(env, "restore", os.path.abspath(file))
    )


def _shown(env: dict[str, str], *words: str) -> int:
    done = server.manage(env, *words)
    print(done.stdout, end="")
    if done.returncode:
        last = (done.stderr.strip().splitlines() or ["it failed without a word"])[-1]
        raise Stop(last.removeprefix("CommandError: "))
    return 0


def _run(args: argparse.Namespace, rest: list[str]) -> int:
    match args.command:
        case "up":
            return server.up(args.port, demo=not args.no_demo)
        case "down":
            return server.down()
        case "test":
            return checks.in_own_var(lambda: checks.run(args.groups, rest))
        case "demo":
            return server.with_database(lambda env: _shown(env, "load_demo", "--again"))
        case "fmt":
            return _fmt()
        case "api":
            return _api()
        case "shots":
            return checks.in_own_var(lambda: checks.beside_demo("tests.browser.shots", 8790))
        case "bench" if args.names[:1] and args.names[0] in BESIDE_STUDIO:
            module, *words = args.names
            return checks.in_own_var(
                lambda: checks.beside_demo(f"benchmarks.{module}", 8791, words, durable=module == "faults")
            )
        case "bench":
            return _bench(args.names)
        case "supply":
            return supply.run(args.folder)
        case "backup":
            return _backup(args.file, args.keep)
        case "verify":
            return server.with_database(lambda env: _shown(env, "verify", os.path.abspath(args.file)))
        case _:
            return _restore(args.file)


def run(argv: list[str]) -> int:
    """Run one of them; its exit code. Stop where the words are not understood."""
    # What stands behind "--" is for pytest, and never for this command.
    end = argv.index("--") if "--" in argv else len(argv)
    own, rest = argv[:end], argv[end + 1 :]
    args, unknown = _parser().parse_known_args(own)
    if unknown or (rest and args.command != "test"):
        word = (unknown or rest)[0]
        raise Stop(f"{word!r} is not understood; './spirrel {args.command} --help' lists what is.", 2)
    return _run(args, rest)
