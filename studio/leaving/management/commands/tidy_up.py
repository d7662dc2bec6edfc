"""Forgets what nobody needs any more, and closes studios whose designers left."""

from __future__ import annotations

from typing import Any

from django.core.management.base import BaseCommand

from studio.accounts import tries
from studio.accounts.sessions import SessionStore
from studio.leaving.actions import carry_out_due
from studio.links import actions as links


class Command(BaseCommand):
    """`tidy_up`: at every start, and each hour while it runs."""

    help = "Clear sessions and tries that are over; close studios whose time of grace is over."

    def handle(self, *args: Any, **options: Any) -> None:
        SessionStore.clear_expired()
        tries.clear_old()
        links.clear_old()
        if closed := carry_out_due():
            self.stdout.write(f"{closed} studios were closed, as their designers had asked")
