"""Yarns in the basket and swatches made of them."""

from __future__ import annotations

from django.conf import settings
from django.core.validators import MaxValueValidator, MinValueValidator
from django.db import models


class Yarn(models.Model):
    """A yarn a designer has: thickness by class or counted wraps, what a skein holds, and how much of it is left."""

    owner = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="yarns")
    name = models.CharField(max_length=80)
    colour = models.CharField(max_length=7, default="#a9744f")
    weight = models.PositiveSmallIntegerField(validators=[MaxValueValidator(7)])
    wraps = models.FloatField(null=True, blank=True, validators=[MinValueValidator(0.5), MaxValueValidator(100)])
    plush = models.BooleanField(default=False)
    skein_m = models.FloatField(null=True, blank=True)
    skein_g = models.FloatField(null=True, blank=True)
    left_g = models.FloatField(null=True, blank=True)
    created = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ("name", "id")

    def __str__(self) -> str:
        return self.name


class Swatch(models.Model):
    """A measured swatch or stuffed piece: the numbers she read off, and the gauge they give."""

    owner = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="swatches")
    yarn = models.ForeignKey(Yarn, on_delete=models.CASCADE, related_name="swatches")
    hook_mm = models.FloatField()
    strands = models.PositiveSmallIntegerField(default=1)
    kind = models.CharField(max_length=8, choices=[("flat", "Flat swatch"), ("stuffed", "Stuffed piece")])
    stitches = models.FloatField()
    across_mm = models.FloatField()
    rounds = models.FloatField()
    up_mm = models.FloatField()
    drift_stitches = models.FloatField(null=True, blank=True)
    drift_rounds = models.PositiveSmallIntegerField(null=True, blank=True)
    yarn_per_stitch_mm = models.FloatField(null=True, blank=True)
    created = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ("-created", "-id")

    def __str__(self) -> str:
        return f"{self.yarn} on {self.hook_mm:g} mm"
