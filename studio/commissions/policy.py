"""Whose commissions: the designer's, and each one client's who holds its link."""

from __future__ import annotations

from studio.commissions.models import Agreement, Commission, ShownPicture
from studio.policy import Purpose, Rule, Verb, register

_CLIENT = {Purpose.CLIENT: frozenset({Verb.SEE, Verb.REPORT})}

register(Commission, Rule("design__owner", "design_id", _CLIENT, link="link_id"))
register(Agreement, Rule("commission__design__owner", "commission__design_id", _CLIENT, link="commission__link_id"))
register(ShownPicture, Rule("commission__design__owner", "commission__design_id", _CLIENT, link="commission__link_id"))
