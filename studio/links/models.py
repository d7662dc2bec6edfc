"""Links as rows: only the hash of a token is kept, so that a stolen table opens nothing."""

from __future__ import annotations

from django.db import models

from studio.designs.models import Design
from studio.policy import LinkHolder, Purpose


class Link(models.Model):
    """A link to a design. note: for whom it was made. window, uses: how often it was used since then."""

    design = models.ForeignKey(Design, on_delete=models.CASCADE, related_name="links")
    purpose = models.CharField(max_length=10, choices=[(p.value, p.value) for p in Purpose])
    token_hash = models.CharField(max_length=64, unique=True)
    note = models.CharField(max_length=120, blank=True)
    created = models.DateTimeField(auto_now_add=True)
    expires = models.DateTimeField()
    revoked = models.BooleanField(default=False)
    window = models.DateTimeField(null=True)
    uses = models.PositiveIntegerField(default=0)

    def __str__(self) -> str:
        return f"{self.purpose} {self.design_id}"

    @property
    def holder(self) -> LinkHolder:
        """Whoever holds it, as an actor."""
        return LinkHolder(self.pk, Purpose(self.purpose), self.design_id, self.expires, self.revoked)
