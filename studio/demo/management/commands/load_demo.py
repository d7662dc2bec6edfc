"""Loads the demo studio once."""

from __future__ import annotations

from typing import Any

from django.conf import settings
from django.contrib.auth.models import User
from django.core.management.base import BaseCommand, CommandError, CommandParser
from django.db import transaction

from studio.accounts.actions import sign_up
from studio.bench.portraits import paint_ahead
from studio.demo.login import PASSWORD, USERNAME
from studio.demo.makings import prove_all
from studio.demo.studio import load, release_all
from studio.designs.models import Design
from studio.designs.reading import design_value


class Command(BaseCommand):
    """`load_demo [--again]`: silent when the demo studio is there already."""

    help = "Load the demo studio."

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("--again", action="store_true", help="throw the demo studio away and load it anew")

    @transaction.atomic
    def handle(self, *args: Any, **options: Any) -> None:
        if not settings.LOOPBACK:
            raise CommandError("The demo login exists only where the studio is served on loopback.")
        present = User.objects.filter(username=USERNAME).first()
        if present and not options["again"]:
            return
        if present:
            for design in present.designs.all():
                design.head = None
                design.save(update_fields=["head"])
            present.delete()
        user = sign_up(USERNAME, PASSWORD, "Lanternwick")
        self.stdout.write(f"the demo studio is loaded: {load(user)} designs")
        # Painted by the workers from now on, so that the shelf has its pictures when it is first looked at.
        for design in Design.objects.filter(owner=user):
            paint_ahead(user, design_value(design))
        release_all(user)
        prove_all(user)
