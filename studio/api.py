"""The API: every app's routes in one place."""

from __future__ import annotations

from ninja import NinjaAPI

from studio import errors
from studio.accounts.api import router as accounts
from studio.answers import router as answers
from studio.bases.api import router as bases
from studio.bench.api import pictures
from studio.bench.api import router as bench
from studio.booklets.api import router as booklets
from studio.commissions.api import router as commissions
from studio.designs.api import router as designs
from studio.guard import signed_in
from studio.jobs.api import router as jobs
from studio.leaving.api import router as leaving
from studio.making.api import in_designs as makings_in_designs
from studio.making.api import makings
from studio.pieces.api import in_designs as pieces_in_designs
from studio.pieces.api import router as pieces
from studio.post.api import router as post
from studio.proving.api import router as proving
from studio.proving.call_api import by_testers
from studio.proving.call_api import router as tests
from studio.releases.api import router as releases
from studio.shapes.api import router as shapes
from studio.sizes.api import router as sizes
from studio.translating.api import router as translators
from studio.yarns.api import router as yarns

api = NinjaAPI(title="Spirrel", version="1", auth=signed_in, docs_url=None, openapi_url=None, urls_namespace="api")
errors.register(api)
for prefix, router in (
    ("", accounts),
    ("/studio", leaving),
    ("/yarns", yarns),
    ("/designs", designs),
    ("/bench", bench),
    ("/shapes", shapes),
    ("/jobs", jobs),
    ("/jobs", answers),
    ("/designs", pictures),
    ("/designs", sizes),
    ("/pieces", pieces),
    ("/designs", pieces_in_designs),
    ("/designs", bases),
    ("/designs", booklets),
    ("/designs", proving),
    ("/designs", releases),
    ("/designs", makings_in_designs),
    ("/makings", makings),
    ("/designs", tests),
    ("/test", by_testers),
    ("/designs", post),
    ("/designs", commissions),
    ("/designs", translators),
):
    api.add_router(prefix, router)
