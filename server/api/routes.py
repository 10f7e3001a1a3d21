"""The interface as a whole: one NinjaAPI, its routers and its error answers."""

from typing import Any

from ninja import NinjaAPI
from ninja.errors import ValidationError
from ninja.security import SessionAuth

from api.account.routes import router as account
from api.board.routes import router as board
from api.brief.routes import router as brief
from api.carrying.routes import router as carrying
from api.edits.routes import router as edits
from api.hearing.routes import router as hearing
from api.kit.routes import router as kit
from api.layouts.files import router as files
from api.layouts.routes import router as layouts
from api.log.routes import router as log
from api.pairs.routes import router as pairs
from api.problems import install
from api.reading import PlainParser
from api.sessions.routes import router as sessions
from api.studios.routes import router as studios
from api.techniques.routes import router as techniques


class Api(NinjaAPI):
    """Keeps what came in a refused value, so that the answer can say it."""

    def validation_error_from_error_contexts(self, error_contexts: list[Any]) -> ValidationError:
        """The first fault of each part of the request, with the value that caused it."""
        faults = []
        for context in error_contexts:
            for fault in context.pydantic_validation_error.errors(include_url=False):
                where = context.model.__ninja_param_source__
                faults.append({**fault, "loc": (where, *fault["loc"][1:])})
        return ValidationError(faults)


api = Api(
    title="Ringside",
    version="1",
    docs_url=None,
    auth=SessionAuth(),
    urls_namespace="api",
    parser=PlainParser(),
)
install(api)
api.add_router("/account", account)
api.add_router("/sessions", sessions)
api.add_router("/layouts", layouts)
api.add_router("/layouts", files)
api.add_router("/studios", studios)
for topic in (board, edits, kit, log, techniques, brief, pairs, hearing, carrying):
    api.add_router("", topic)
