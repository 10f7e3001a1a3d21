"""The interface as a whole: one NinjaAPI, its routers and its error answers."""

from typing import Any, Final

from ninja import NinjaAPI
from ninja.errors import ValidationError
from ninja.security import SessionAuth

from api.account.phones import router as phones
from api.account.routes import router as account
from api.atkit.meter import router as meter
from api.atkit.routes import router as atkit
from api.board.routes import router as board
from api.brief.routes import router as brief
from api.carrying.routes import router as carrying
from api.edits.routes import router as edits
from api.hand.routes import router as hand
from api.hearing.routes import router as hearing
from api.kit.routes import router as kit
from api.layouts.files import router as files
from api.layouts.prints import router as prints
from api.layouts.routes import router as layouts
from api.log.routes import router as log
from api.pairs.routes import router as pairs
from api.problems import install
from api.reading import PlainParser
from api.sessions.routes import router as sessions
from api.studios.routes import router as studios
from api.takes.routes import router as takes
from api.techniques.routes import router as techniques
from api.tried.routes import router as tried

JSON: Final = "application/json"
PROBLEM: Final = "application/problem+json"
FILES: Final = (
    (".csv", "text/csv"), (".txt", "text/plain"), (".pdf", "application/pdf"),
    (".wav", "audio/wav"), (".zip", "application/zip"), ("/sheet", "text/html"),
    ("/inputs", "text/html"), ("/labels", "text/html"),
)  # fmt: skip
"""What answers with a file, by the end of its path, and of which kind."""

ANYWHERE: Final = {
    400: "Cannot be done, or not JSON; the detail says what was expected.",
    401: "Nobody is signed in.",
    403: "The CSRF token is missing or old.",
    408: "Whoever asked has gone.",
    413: "Larger than anything that can be kept.",
    422: "A value is not as it should be; place says where.",
    429: "Too many at once; Retry-After says when to come back.",
    500: "A fault of ours; it is written down.",
    503: "The database does not answer, or the answer took too long. Nothing was changed.",
}


class Api(NinjaAPI):
    """Keeps what came in a refused value, so that the answer can say it; tells every answer."""

    def get_openapi_schema(self, **how: Any) -> Any:
        """The schema with what any request may be answered, as problem+json."""
        schema = super().get_openapi_schema(**how)
        problem = {"schema": {"$ref": "#/components/schemas/Problem"}}
        shared = schema["components"].setdefault("responses", {})
        for status, words in ANYWHERE.items():
            shared[f"Any{status}"] = {"description": words, "content": {PROBLEM: problem}}
        for path, ways in schema["paths"].items():
            kind = next((kind for end, kind in FILES if path.endswith(end)), JSON)
            for way, operation in ways.items():
                answers = operation["responses"]
                if way == "get" and kind != JSON:
                    answers[200]["content"] = {kind: answers[200]["content"][JSON]}
                for status, words in ANYWHERE.items():
                    if status in answers:
                        answers[status]["description"] = words
                    else:
                        answers[status] = {"$ref": f"#/components/responses/Any{status}"}
                for status, told in answers.items():
                    if int(status) >= 400 and JSON in told.get("content", {}):
                        told["content"] = {PROBLEM: told["content"][JSON]}
                operation["responses"] = dict(sorted(answers.items(), key=lambda a: int(a[0])))
        return schema

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
# First, for it is asked oftenest: a path is looked for in their order.
api.add_router("", board)
api.add_router("/account", account)
api.add_router("/account", phones)
api.add_router("/sessions", sessions)
api.add_router("/layouts", layouts)
api.add_router("/layouts", files)
api.add_router("/prints", prints)
api.add_router("/studios", studios)
for topic in (
    edits,
    hand,
    kit,
    log,
    atkit,
    meter,
    techniques,
    brief,
    pairs,
    hearing,
    carrying,
    takes,
    tried,
):
    api.add_router("", topic)
