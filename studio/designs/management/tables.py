"""What a backup holds, parents before children."""

from __future__ import annotations

from django.contrib.auth.models import User
from django.db import models

from studio.accounts.models import Profile
from studio.designs.models import Design, Draft, PartVersion, Picture, Revision
from studio.yarns.models import Sample, Yarn

TABLES: tuple[type[models.Model], ...] = (User, Profile, Yarn, Sample, Design, Revision, PartVersion, Draft, Picture)
