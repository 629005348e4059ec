"""A line to the test's server that can be cut: what a browser calls offline does not reach its workers."""

from __future__ import annotations

import contextlib
import socket
from threading import Thread


class Relay:
    """Listens on a port of its own and passes all on, until it is cut; then nobody answers there."""

    def __init__(self, port: int) -> None:
        self.to = ("127.0.0.1", port)
        self.ears = socket.create_server(("127.0.0.1", 0))
        self.port: int = self.ears.getsockname()[1]
        self.lines: list[socket.socket] = []
        self.is_cut = False
        Thread(target=self._listen, daemon=True).start()

    @property
    def url(self) -> str:
        return f"http://127.0.0.1:{self.port}"

    def cut(self) -> None:
        """Break all lines, and answer nobody."""
        self.is_cut = True
        for each in self.lines:
            with contextlib.suppress(OSError):
                each.shutdown(socket.SHUT_RDWR)

    def mend(self) -> None:
        self.is_cut = False

    def close(self) -> None:
        self.cut()
        self.ears.close()

    def _listen(self) -> None:
        while True:
            try:
                near, _ = self.ears.accept()
            except OSError:
                return
            if self.is_cut:
                near.close()
                continue
            far = socket.create_connection(self.to)
            self.lines += [near, far]
            for one, other in ((near, far), (far, near)):
                Thread(target=self._pass, args=(one, other), daemon=True).start()

    def _pass(self, one: socket.socket, other: socket.socket) -> None:
        with contextlib.suppress(OSError):
            while some := one.recv(65536):
                other.sendall(some)
        for each in (one, other):
            with contextlib.suppress(OSError):
                each.shutdown(socket.SHUT_RDWR)
