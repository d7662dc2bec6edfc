"""Whether the studio is well, whether it is ready, and its measures: addresses for machines that watch it."""

from __future__ import annotations

import shutil
from hmac import compare_digest

from django.conf import settings
from django.db import connection
from django.db.migrations.executor import MigrationExecutor
from django.http import HttpRequest, HttpResponse, JsonResponse
from prometheus_client import CONTENT_TYPE_LATEST

from studio.errors import NOT_FOUND, problem
from studio.operations.measures import collected

LEAST_FREE = 200 * 2**20


def health(_: HttpRequest) -> JsonResponse:
    """Whether the server and its database answer."""
    with connection.cursor() as cursor:
        cursor.execute("SELECT 1")
    return JsonResponse({"status": "well"})


def ready(_: HttpRequest) -> HttpResponse:
    """Whether work may be sent here: tables as new as the code, and room on the disk. 503 with the reasons otherwise."""
    executor = MigrationExecutor(connection)
    wrong = []
    if executor.migration_plan(executor.loader.graph.leaf_nodes()):
        wrong.append("the tables are older than the code: run migrate")
    if shutil.disk_usage(settings.VAR).free < LEAST_FREE:
        wrong.append(f"less than {LEAST_FREE // 2**20} MB are free")
    if wrong:
        return problem(503, "not-ready", f"Not ready: {'; '.join(wrong)}.", why=wrong)
    return JsonResponse({"status": "ready"})


def metrics(request: HttpRequest) -> HttpResponse:
    """Measures for whoever holds the token that is set for them; there is nothing here where none is set."""
    token = settings.METRICS_TOKEN
    if not token or not compare_digest(request.headers.get("Authorization", ""), f"Bearer {token}"):
        return problem(404, "not-found", NOT_FOUND)
    return HttpResponse(collected(), content_type=CONTENT_TYPE_LATEST)
