"""The one API: every app's router, and one shape for errors."""

from ninja import NinjaAPI

from .accounts.api import router as session
from .accounts.auth import MemberAuth
from .catalogue.api import router as couplings
from .instruments.api import router as instruments
from .instruments.register_api import router as register
from .jobs.api import router as jobs
from .jobs.live.api import router as live
from .jobs.streams import router as streams
from .keep.due.api import router as due
from .keep.due.calendar import router as calendar
from .keep.history.api import router as history
from .keep.history.exports import router as exports
from .keep.history.labels import router as labels
from .keep.history.reasons import router as reasons
from .keep.rounds.api import router as rounds
from .plant.api import router as lines
from .reports.api import router as records
from .web.benches import router as benches
from .web.errors import register_handlers
from .web.fast_json import FastRenderer

api = NinjaAPI(title="Young Anvil", version="1", auth=MemberAuth(), docs_url=None, openapi_url=None, renderer=FastRenderer())
api.add_router("/session", session)
api.add_router("/benches", benches)
api.add_router("/couplings", couplings)
api.add_router("/instruments", instruments)
api.add_router("/instruments", register)
api.add_router("/lines", lines)
api.add_router("/jobs", jobs)
api.add_router("/jobs", streams)
api.add_router("/jobs", live)
api.add_router("/records", records)
api.add_router("/due", due)
api.add_router("/rounds", rounds)
api.add_router("/history", history)
api.add_router("/reasons", reasons)
api.add_router("/calendar", calendar)
api.add_router("/labels", labels)
api.add_router("/exports", exports)
register_handlers(api)
