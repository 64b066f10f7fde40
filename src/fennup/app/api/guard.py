"""What keeps a foreign page, a foreign host and an oversized body out."""

from flask import Flask, Response, abort, current_app, g, request

from fennup.app.api.devices import COOKIE
from fennup.app.api.sessions import reading, writing
from fennup.app.services import devices
from fennup.app.sharing import SHARED

HOSTS = {"127.0.0.1", "localhost", "[::1]"}
LARGEST_BODY = 256 * 1024
LARGEST_IMPORT = 64 * 1024 * 1024
IMPORT = "/api/import"
BRING_IN = "/api/bring-in"
LARGEST_TABLE = 2 * 1024 * 1024
TABLES = ("/api/rack/table", "/api/prices/table")
LARGEST_SENT_PHOTO = 25 * 1024 * 1024
PHOTOS = ("/log/photos", "/mouldings/photos")
DEEPEST = 40
# Open to whoever is in the network, before any device is let in; the pages themselves are no secret.
OPEN_TO_ALL = {"/api/pair", "/api/share/certificate"}
# For the desk alone, however well a device is known.
DESK_ONLY = ("/api/share", "/api/devices", "/api/backup", "/api/import", "/api/bring-in", "/api/workshop/file")
WRITES = {"POST", "PUT", "PATCH", "DELETE"}
POLICY = (
    "default-src 'none'; script-src 'self'; style-src 'self'; font-src 'self'; img-src 'self' data:; connect-src 'self'; "
    "manifest-src 'self'; base-uri 'none'; form-action 'none'; frame-ancestors 'none'"
)


def _body() -> object:
    """The body as JSON; None where it is none."""
    try:
        return request.get_json(silent=True)
    except RecursionError:
        return None


def _deeper(value: object, most: int) -> bool:
    """Whether something is nested deeper than so many levels."""
    level = [value]
    for _ in range(most):
        level = [
            inside
            for here in level
            for inside in (here.values() if isinstance(here, dict) else here if isinstance(here, list) else ())
            if isinstance(inside, dict | list)
        ]
        if not level:
            return False
    return True


def register(app: Flask) -> None:
    """Checks before every request, headers after it."""
    app.config["MAX_CONTENT_LENGTH"] = LARGEST_BODY

    @app.before_request
    def _known_host() -> None:
        host = request.host.rsplit(":", 1)[0] if not request.host.endswith("]") else request.host
        shared = request.environ.get(SHARED)
        if host not in (current_app.config["SHARE"].hosts if shared else HOSTS):
            abort(403, "This address is not one that Fennup answers to.")

    @app.before_request
    def _known_device() -> None:
        """What comes from the network must be a device that was let in, and does not do what belongs to the desk."""
        if not request.environ.get(SHARED) or not request.path.startswith("/api/") or request.path in OPEN_TO_ALL:
            return
        with reading() as session:
            device = devices.device_with(session, request.cookies.get(COOKIE, ""))
        if device is None:
            abort(401, "This device is not let in: ask the desk for a code.")
        if request.path.startswith(DESK_ONLY):
            abort(403, "That is done at the desk, not from another device.")
        g.device_name = device.name
        if not devices.was_seen(device):
            with writing() as session:
                devices.saw(session, device.id)

    @app.before_request
    def _room_for_files() -> None:
        if request.path == IMPORT or request.path.startswith(BRING_IN):
            request.max_content_length = LARGEST_IMPORT
        elif request.path.endswith(PHOTOS):
            request.max_content_length = LARGEST_SENT_PHOTO
        elif request.path in TABLES:
            request.max_content_length = LARGEST_TABLE

    @app.before_request
    def _own_json_only() -> None:
        if request.method not in WRITES or request.routing_exception:
            return  # reads, and what is answered with 404 or 405
        own = f"{request.scheme}://{request.host}"
        foreign = request.headers.get("Sec-Fetch-Site", "same-origin") not in ("same-origin", "none")
        if foreign or request.headers.get("Origin", own) != own:
            abort(403, "Only Fennup's own pages may change anything.")
        if request.mimetype != "application/json":
            abort(415, "Send JSON, with Content-Type application/json.")
        body = _body()
        if body is None:
            abort(400, "The body is no JSON.")
        if _deeper(body, DEEPEST):
            abort(400, f"The body is nested more than {DEEPEST} levels deep: nothing that Fennup reads is.")

    @app.after_request
    def _headers(response: Response) -> Response:
        response.headers["Content-Security-Policy"] = POLICY
        response.headers["X-Content-Type-Options"] = "nosniff"
        response.headers["Referrer-Policy"] = "no-referrer"
        response.headers["Cross-Origin-Resource-Policy"] = "same-origin"
        response.headers["Cross-Origin-Opener-Policy"] = "same-origin"
        if request.path.startswith("/api/"):
            response.headers.setdefault("Cache-Control", "no-store")
        return response
