"""The page of the bay that is not there: put it on an hour's line, and let somebody hit balls in it.

`python -m tropometer.standins.bay_page --web 8026 --hour demo/hour.json.gz`
"""

from __future__ import annotations

import argparse
import html
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer
from pathlib import Path
from typing import Any
from urllib.parse import parse_qs

from websockets.exceptions import WebSocketException

from tropometer.standins.bay import BAD_LINE, GOOD_LINE, Bay
from tropometer.standins.plate import swings

LONGEST_FORM = 4000
PAGE = """<!doctype html><html lang="en"><meta charset="utf-8">
<meta name="viewport" content="width=device-width"><meta http-equiv="refresh" content="20">
<title>Bay stand-in</title><style>body{{font:16px/1.5 sans-serif;max-width:42rem;margin:2rem auto;
padding:0 1rem;background:#f6f3ea;color:#16302b}}
form,p{{background:#fff;border:1px solid #cfc8b4;padding:1rem;margin:1rem 0}}
input{{font:inherit;width:100%;box-sizing:border-box}}button,select{{font:inherit;margin-top:.5rem}}</style>
<h1>Bay stand-in</h1>
<p>A pressure plate and a launch monitor that are not there, and somebody who is made up.</p>
{state}
<form method="post" action="/on"><label>Address of the line, from the hour's page
<input name="address" required pattern="wss?://.*" autocomplete="off"></label>
<select name="line" aria-label="How good the line is"><option value="good">A good line</option>
<option value="bad">A bad one: late, lost and doubled packets</option></select>
<button>Go on the line</button></form>
<form method="post" action="/hit"><button>Hit a ball</button> One every seven seconds.</form>
<form method="post" action="/off"><button>Go off the line</button></form></html>"""


class BayPage:
    """What the page says and does."""

    def __init__(self, bay: Bay) -> None:
        self._bay = bay
        self._trouble = ""

    def page(self) -> str:
        """How it is, and what can be done."""
        state = self._bay.state
        said = [
            f"Plate: {'on the line' if state.plate else 'off'}.",
            f"Launch monitor: {'on the line' if state.launch_monitor else 'off'}.",
            f"Balls hit: {state.hits}.",
            "" if state.watched or not state.plate else "Nobody looks at the hour: the plate is silent.",
            self._trouble or state.trouble,
        ]
        return PAGE.format(state=f"<p role=status>{html.escape(' '.join(filter(None, said)))}</p>")

    def do(self, what: str, form: dict[str, list[str]]) -> None:
        """What a form asks for."""
        self._trouble = ""
        if what == "/on":
            try:
                line = BAD_LINE if form.get("line") == ["bad"] else GOOD_LINE
                self._bay.go_on(form.get("address", [""])[0].strip(), line)
            except (OSError, ValueError, WebSocketException) as error:
                self._trouble = f"There is no line: {error}"
        elif what == "/hit":
            self._bay.hit()
        elif what == "/off":
            self._bay.go_off()


def serve_page(page: BayPage, port: int) -> ThreadingHTTPServer:
    """The page's server, bound but not yet running."""

    class Handler(BaseHTTPRequestHandler):
        def do_GET(self) -> None:
            if self._own():
                self._answer(200, page.page())
            else:
                self._answer(403, "Not from here.")

        def do_POST(self) -> None:
            # No other site's page may send this bay anywhere.
            if not self._own() or self.headers.get("Origin") != f"http://{self.headers['Host']}":
                self._answer(403, "Not from here.")
                return
            length = min(int(self.headers.get("Content-Length") or 0), LONGEST_FORM)
            page.do(self.path, parse_qs(self.rfile.read(length).decode(errors="replace")))
            self.send_response(303)
            self.send_header("Location", "/")
            self.send_header("Content-Length", "0")
            self.end_headers()

        def _own(self) -> bool:
            return self.headers.get("Host", "").rpartition(":")[0] in ("127.0.0.1", "localhost")

        def _answer(self, status: int, text: str) -> None:
            data = text.encode()
            self.send_response(status)
            self.send_header("Content-Type", "text/html; charset=utf-8")
            self.send_header("Content-Length", str(len(data)))
            self.end_headers()
            self.wfile.write(data)

        def log_message(self, format: str, *args: Any) -> None:
            pass

    return ThreadingHTTPServer(("127.0.0.1", port), Handler)


if __name__ == "__main__":
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--web", type=int, required=True)
    parser.add_argument("--hour", type=Path, required=True)
    arguments = parser.parse_args()
    serve_page(BayPage(Bay(swings(arguments.hour))), arguments.web).serve_forever()
