"""A mail server that delivers to a folder, and a page that shows what came."""

from __future__ import annotations

import argparse
import html
import re
import time
from email import message_from_bytes, policy
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer
from pathlib import Path
from typing import Any

from aiosmtpd.controller import Controller

PAGE = """<!doctype html><html lang="en"><meta charset="utf-8">
<meta name="viewport" content="width=device-width">
<title>Mail stand-in</title><style>body{{font:16px/1.5 sans-serif;max-width:42rem;margin:2rem auto;
padding:0 1rem;background:#f6f3ea;color:#16302b}}
article{{background:#fff;border:1px solid #cfc8b4;padding:1rem;
margin:1rem 0}}
pre{{white-space:pre-wrap;font:inherit}}a{{color:#2f5d8a}}</style><h1>Mail stand-in</h1>{mails}</html>"""


class Folder:
    """Keeps each mail as a file; the handler aiosmtpd calls."""

    def __init__(self, path: Path) -> None:
        self.path = path
        path.mkdir(parents=True, exist_ok=True)

    async def handle_DATA(self, server: Any, session: Any, envelope: Any) -> str:
        """Store one mail."""
        (self.path / f"{time.time_ns()}.eml").write_bytes(envelope.content)
        return "250 kept"

    def page(self) -> str:
        """All mails, newest first; links can be followed."""
        files = sorted(self.path.glob("*.eml"), reverse=True)
        return PAGE.format(mails="".join(map(_article, files)) or "<p>No mail has come yet.</p>")


def _article(file: Path) -> str:
    mail = message_from_bytes(file.read_bytes(), policy=policy.default)
    body = mail.get_body(("plain",))
    text = html.escape(body.get_content() if body else "")
    text = re.sub(r"(https?://\S+)", r'<a href="\1">\1</a>', text)
    subject, to = html.escape(str(mail["Subject"])), html.escape(str(mail["To"]))
    return f"<article><h2>{subject}</h2><p>To {to}</p><pre>{text}</pre></article>"


def serve_page(folder: Folder, port: int) -> ThreadingHTTPServer:
    """The page's server, bound but not yet running."""

    class Handler(BaseHTTPRequestHandler):
        def do_GET(self) -> None:
            data = folder.page().encode()
            self.send_response(200)
            self.send_header("Content-Type", "text/html; charset=utf-8")
            self.send_header("Content-Length", str(len(data)))
            self.end_headers()
            self.wfile.write(data)

        def log_message(self, format: str, *args: Any) -> None:
            pass

    return ThreadingHTTPServer(("127.0.0.1", port), Handler)


if __name__ == "__main__":
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--smtp", type=int, required=True)
    parser.add_argument("--web", type=int, required=True)
    parser.add_argument("--folder", type=Path, required=True)
    arguments = parser.parse_args()
    folder = Folder(arguments.folder)
    Controller(folder, hostname="127.0.0.1", port=arguments.smtp).start()
    serve_page(folder, arguments.web).serve_forever()
