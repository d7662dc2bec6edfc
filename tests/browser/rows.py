"""All rows of the database as they are, and put back: what takes long to make is made once in a run."""

from __future__ import annotations

from typing import Any

from django.db import connection, transaction

Rows = dict[str, tuple[list[str], list[tuple[Any, ...]]]]
"""By table its columns and its rows."""

OF_DJANGO = frozenset(("django_migrations", "django_content_type", "auth_permission"))
"""Tables that are filled with the database itself."""


def rows_now() -> Rows:
    """The rows of every table that has some."""
    found: Rows = {}
    with connection.cursor() as cursor:
        for table in set(connection.introspection.django_table_names(only_existing=True)) - OF_DJANGO:
            cursor.execute(f"SELECT * FROM {connection.ops.quote_name(table)}")
            if rows := list(cursor.fetchall()):
                found[table] = [column[0] for column in cursor.description], rows
    return found


def put_back(kept: Rows) -> None:
    """Put rows back into empty tables."""
    quote = connection.ops.quote_name
    with transaction.atomic(), connection.constraint_checks_disabled(), connection.cursor() as cursor:
        for table, (columns, rows) in kept.items():
            names, places = ", ".join(map(quote, columns)), ", ".join(["%s"] * len(columns))
            cursor.executemany(f"INSERT INTO {quote(table)} ({names}) VALUES ({places})", rows)
