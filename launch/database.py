"""A MariaDB of its own: data folder, socket, loopback port and password under `var/`.

Nothing of a system-wide MariaDB is used or touched but the program files.
"""

from __future__ import annotations

import json
import os
import pwd
import secrets
import shutil
import socket
import subprocess
import time
from dataclasses import asdict, dataclass
from pathlib import Path

from launch import processes
from launch.paths import ROOT, VAR, program
from launch.say import Stop, say

DATA = VAR / "mariadb"
SOCKET = VAR / "run" / "db.sock"
LOG = VAR / "log" / "mariadb.log"
SYSTEM_USER = "spirrel-db"
NAME = "spirrel"


@dataclass(frozen=True)
class Keys:
    """Generated once: the database's password and port, and the key that signs cookies."""

    db_password: str
    db_port: int
    secret_key: str


def free_port(first: int) -> int:
    """The first loopback port from `first` on that nobody listens on."""
    for port in range(first, min(first + 200, 32_000)):
        with socket.socket() as probe:
            if probe.connect_ex(("127.0.0.1", port)) != 0:
                return port
    raise Stop(f"no free port was found from {first} on.")


def keys() -> Keys:
    """The generated keys, made on first use and readable by the owner alone."""
    path = VAR / "keys.json"
    if path.exists():
        try:
            return Keys(**json.loads(path.read_text()))
        except (OSError, ValueError, TypeError) as error:
            raise Stop(f"{path} cannot be read ({error}); put it back, or move {VAR} away to start anew.") from None
    if DATA.exists() and any(DATA.iterdir()) and (DATA / "ready").exists():
        raise Stop(f"{path} is missing, but there is a database under {DATA}: put the file back from a backup.")
    # Looked for from anywhere on: two studios that start in the same moment would find the same port.
    first = 13_306 + secrets.randbelow(4_000)
    made = Keys(secrets.token_urlsafe(24), free_port(first), secrets.token_urlsafe(50))
    VAR.mkdir(parents=True, exist_ok=True)
    with os.fdopen(os.open(path, os.O_WRONLY | os.O_CREAT | os.O_EXCL, 0o600), "w") as file:
        json.dump(asdict(made), file)
    return made


def _user() -> str:
    """Whom the server runs as: us, or as root a system user of its own that can reach the folder."""
    if os.geteuid() != 0:
        return pwd.getpwuid(os.geteuid()).pw_name
    try:
        pwd.getpwnam(SYSTEM_USER)
    except KeyError:
        made = subprocess.run(
            [program("useradd"), "--system", "--no-create-home", "--shell", "/usr/sbin/nologin", SYSTEM_USER],
            capture_output=True,
        )
        if made.returncode:
            return "root"
    VAR.mkdir(parents=True, exist_ok=True)
    reach = subprocess.run([program("runuser"), "-u", SYSTEM_USER, "--", "test", "-x", str(VAR)], capture_output=True)
    return SYSTEM_USER if reach.returncode == 0 else "root"


def _own(folder: Path, user: str) -> None:
    folder.mkdir(parents=True, exist_ok=True)
    if os.geteuid() == 0:
        shutil.chown(folder, user)
    folder.chmod(0o750 if folder == DATA else 0o755)


def _initialise(user: str) -> None:
    """Make the data folder; one that was left half made is made anew, since nothing was stored in it."""
    if (DATA / "ready").exists():
        return
    if DATA.exists() and any(DATA.iterdir()):
        say("the database was left half made; making it anew")
        shutil.rmtree(DATA)
    if shutil.disk_usage(VAR).free < 300 * 2**20:
        raise Stop(f"less than 300 MB are free for {VAR}: make room first.")
    _own(DATA, user)
    say("making the database")
    root = "root" if os.geteuid() == 0 else user
    done = subprocess.run(
        [
            program("mariadb-install-db"),
            "--no-defaults",
            f"--user={user}",
            f"--datadir={DATA}",
            "--skip-test-db",
            "--auth-root-authentication-method=socket",
            f"--auth-root-socket-user={root}",
        ],
        capture_output=True,
        text=True,
    )
    if done.returncode:
        raise Stop(f"the database could not be made: {done.stderr.strip()[-400:]}")


def _statements(sql: str) -> subprocess.CompletedProcess[str]:
    return subprocess.run(
        [program("mariadb"), "--no-defaults", f"--socket={SOCKET}", "-u", pwd.getpwuid(os.geteuid()).pw_name],
        input=sql,
        capture_output=True,
        text=True,
    )


def _grant(password: str) -> None:
    users = [f"'{NAME}'@'127.0.0.1'", f"'{NAME}'@'localhost'"]
    sql = [f"CREATE DATABASE IF NOT EXISTS `{NAME}` CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci;"]
    for user in users:
        sql += [
            f"CREATE USER IF NOT EXISTS {user};",
            f"ALTER USER {user} IDENTIFIED BY '{password}';",
            f"GRANT ALL ON `{NAME}`.* TO {user};",
            f"GRANT ALL ON `test\\_{NAME}%`.* TO {user};",
        ]
    done = _statements("\n".join(sql))
    if done.returncode:
        raise Stop(f"the database refused its set-up: {done.stderr.strip()[-300:]}")
    (DATA / "ready").touch()


def _answers() -> bool:
    return _statements("SELECT 1").returncode == 0


def start(*, durable: bool = True) -> None:
    """Start the server unless it runs, and wait until it answers. durable: every commit reaches the disk."""
    if processes.remembered("mariadb") is not None and _answers():
        return
    processes.stop("mariadb")
    made = keys()
    user = _user()
    _own(VAR / "run", user)
    _own(LOG.parent, user)
    _initialise(user)
    SOCKET.unlink(missing_ok=True)
    port = made.db_port
    with socket.socket() as probe:
        if probe.connect_ex(("127.0.0.1", port)) == 0:
            port = free_port(port + 1)
    process = processes.spawn(
        "mariadb",
        [
            program("mariadbd"),
            "--no-defaults",
            f"--user={user}",
            f"--datadir={DATA}",
            f"--socket={SOCKET}",
            f"--pid-file={VAR / 'run' / 'mariadb.pid'}",
            f"--port={port}",
            "--bind-address=127.0.0.1",
            "--character-set-server=utf8mb4",
            "--collation-server=utf8mb4_unicode_ci",
            "--skip-name-resolve",
            f"--innodb-flush-log-at-trx-commit={1 if durable else 0}",
            "--max-allowed-packet=64M",
        ],
        env=dict(os.environ),
        log=LOG,
        cwd=ROOT,
    )
    end = time.monotonic() + 60
    while not _answers():
        if process.poll() is not None or time.monotonic() > end:
            processes.stop("mariadb")
            full = " (the disk may be full)" if shutil.disk_usage(VAR).free < 50 * 2**20 else ""
            raise Stop(f"the database did not start{full}; its last words, from {LOG}:\n{processes.last_lines(LOG)}")
        time.sleep(0.1)
    if not (DATA / "ready").exists():
        _grant(made.db_password)


def stop() -> bool:
    """Stop the server cleanly; True when it ran."""
    ran = processes.stop("mariadb", patience=30.0)
    SOCKET.unlink(missing_ok=True)
    return ran


def environment() -> dict[str, str]:
    """What the studio needs to know to reach the database."""
    made = keys()
    return {
        "SPIRREL_DB_SOCKET": str(SOCKET),
        "SPIRREL_DB_NAME": NAME,
        "SPIRREL_DB_USER": NAME,
        "SPIRREL_DB_PASSWORD": made.db_password,
        "SPIRREL_SECRET_KEY": made.secret_key,
        "SPIRREL_VAR": str(VAR),
    }
