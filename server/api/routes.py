"""The interface as a whole: one NinjaAPI, its routers and its error answers."""

from typing import Any

from ninja import NinjaAPI
from ninja.errors import ValidationError
from ninja.security import SessionAuth

from api import (
    account_routes,
    brief_routes,
    compute_routes,
    file_routes,
    hearing_routes,
    kit_routes,
    layout_routes,
    log_routes,
    pair_routes,
    session_routes,
    studio_routes,
    technique_routes,
)
from api.problems import install


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
)
install(api)
api.add_router("/account", account_routes.router)
api.add_router("/sessions", session_routes.router)
api.add_router("/layouts", layout_routes.router)
api.add_router("/layouts", file_routes.router)
api.add_router("/studios", studio_routes.router)
api.add_router("", compute_routes.router)
api.add_router("", kit_routes.router)
api.add_router("", log_routes.router)
api.add_router("", technique_routes.router)
api.add_router("", brief_routes.router)
api.add_router("", pair_routes.router)
api.add_router("", hearing_routes.router)
