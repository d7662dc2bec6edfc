"""The door for the production server."""

from __future__ import annotations

import os

from django.core.wsgi import get_wsgi_application
from django.urls import get_resolver

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "studio.settings")
application = get_wsgi_application()
# Everything is read in now, before workers are forked, so that nobody's first request waits for it.
get_resolver().check()
