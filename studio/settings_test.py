"""Settings of the tests: the real ones, with quick password hashing and a studio of its own."""

from __future__ import annotations

import os
import tempfile
from pathlib import Path

os.environ.setdefault("SPIRREL_SECRET_KEY", "only-for-tests-" + "x" * 40)

from studio.settings import *  # noqa: F403

PASSWORD_HASHERS = ["django.contrib.auth.hashers.MD5PasswordHasher"]
# One folder for each process that runs tests: a restored backup takes the place of the whole folder.
MEDIA_ROOT = Path(tempfile.gettempdir()) / f"spirrel-test-pictures-{os.environ.get('PYTEST_XDIST_WORKER', '0')}"
ALLOWED_HOSTS = ["127.0.0.1", "localhost", "testserver"]
# Jobs are worked out where they are asked for; the database's line of tasks has tests of its own.
TASKS = {"default": {"BACKEND": "django_tasks.backends.immediate.ImmediateBackend"}}
