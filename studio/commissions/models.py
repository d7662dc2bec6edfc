"""Commissions as rows: client, price, what was agreed, and the pictures that she may see."""

from __future__ import annotations

import uuid
from decimal import Decimal

from django.db import models

from studio.designs.models import Design
from studio.links.models import Link
from studio.making.models import MakingPicture


class Commission(models.Model):
    """A figure that somebody ordered. price, paid: in the currency that is named. due: the day it is wanted for, None where
    none is. link: that the client holds."""

    design = models.ForeignKey(Design, on_delete=models.CASCADE, related_name="commissions")
    client = models.CharField(max_length=120)
    about = models.TextField(blank=True)
    price = models.DecimalField(max_digits=9, decimal_places=2, default=Decimal(0))
    paid = models.DecimalField(max_digits=9, decimal_places=2, default=Decimal(0))
    currency = models.CharField(max_length=12, default="EUR")
    due = models.DateField(null=True)
    link = models.OneToOneField(Link, on_delete=models.SET_NULL, null=True, related_name="commission")
    created = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ("-created", "-id")

    def __str__(self) -> str:
        return self.client


class AgreementState(models.TextChoices):
    """What the client said to a change."""

    ASKED = "asked", "asked"
    YES = "yes", "yes"
    NO = "no", "no"


class Agreement(models.Model):
    """A change that the client is asked about, and what she said, when. Once she answered, it is never changed."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4)
    commission = models.ForeignKey(Commission, on_delete=models.CASCADE, related_name="agreements")
    text = models.CharField(max_length=1_000)
    price = models.DecimalField(max_digits=9, decimal_places=2, default=Decimal(0))
    state = models.CharField(max_length=10, choices=AgreementState.choices, default=AgreementState.ASKED)
    said = models.CharField(max_length=1_000, blank=True)
    asked = models.DateTimeField(auto_now_add=True)
    answered = models.DateTimeField(null=True)

    class Meta:
        ordering = ("asked", "id")

    def __str__(self) -> str:
        return f"{self.state} {self.text[:40]}"


class ShownPicture(models.Model):
    """A photograph of a making that the client may see."""

    commission = models.ForeignKey(Commission, on_delete=models.CASCADE, related_name="pictures")
    picture = models.ForeignKey(MakingPicture, on_delete=models.CASCADE, related_name="shown_in")
    caption = models.CharField(max_length=200, blank=True)
    created = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ("created", "id")
        constraints = (models.UniqueConstraint(fields=["commission", "picture"], name="commission_picture"),)

    def __str__(self) -> str:
        return self.caption or str(self.picture_id)
