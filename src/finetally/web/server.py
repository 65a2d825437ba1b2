"""The worker that serves: a connection takes one of its threads only while there is something to do for it.

Used by gunicorn as `-k finetally.web.server.PunctualWorker`. A request waits in the main loop, without a thread,
until its head lines are there and its body, or the first part of a long one. Where a connection is closed, its last
bytes are waited for there, too. Answers that nobody takes are given up.
"""

from __future__ import annotations

import contextlib
import errno
import re
import selectors
import socket
import time
from functools import partial
from typing import Any

from gunicorn.workers.gthread import TConn, ThreadWorker

HEAD_S = 10.0
"""Seconds that a request may take to come, its body or the first part of it included."""
CLOSING_S = 1.0
"""Seconds that a closed connection is given to take its last answer."""
DRAIN_S = 0.1
"""Seconds to take what is left of a body that nobody read; a connection with more is closed."""
ANSWER_S = 10.0
"""Seconds that one piece of an answer may wait to be taken."""
AHEAD_BYTES = 65_536
"""Bytes of a request that the system keeps while it comes; longer bodies are read by a thread (web/body.py)."""
SEND_BYTES = 1 << 20
"""Bytes of an answer that the system may keep for a slow reader, so that no thread waits for one."""
HEAD_END = b"\r\n\r\n"
_LENGTH = re.compile(rb"\r\ncontent-length:[ \t]*(\d{1,15})[ \t]*\r\n", re.IGNORECASE)
TOO_SLOW = (
    b"HTTP/1.1 408 Request Timeout\r\nConnection: close\r\nContent-Type: text/plain\r\nContent-Length: 47\r\n\r\n"
    b"The request did not come in time. Nothing done."
)


def has_come(begin: bytes) -> bool:
    """Whether a thread can work on a request of which so much is there: it all, or as much as is kept ahead."""
    if len(begin) >= AHEAD_BYTES:
        return True
    head, end, _ = begin.partition(HEAD_END)
    if not end:
        return False
    told = _LENGTH.search(head + b"\r\n")
    whole = len(head) + len(end) + (int(told[1]) if told else 0)
    return len(begin) >= min(whole, AHEAD_BYTES)


class Connection(TConn):  # type: ignore[misc]
    """gunicorn's connection; closed by the worker's loop, which waits for nobody."""

    def __init__(self, worker: PunctualWorker, sock: socket.socket, client: Any, listener: socket.socket) -> None:
        super().__init__(worker.cfg, sock, client, listener.getsockname())
        self._worker = worker
        # What has come before the loop hands it to a thread, there is nothing to wait for.
        self.data_ready = True
        with contextlib.suppress(OSError):
            sock.setsockopt(socket.SOL_SOCKET, socket.SO_SNDBUF, SEND_BYTES)

    def close(self, graceful: bool = False) -> None:
        """Close it; `graceful`: once what was answered is taken."""
        if graceful:
            self._worker.close_later(self)
        else:
            super().close()

    def begin(self) -> bytes:
        """What has come of the next request. Raises OSError where the connection is lost."""
        ahead: bytes = self.parser.unreader.buf.getvalue() if self.parser is not None else b""
        with contextlib.suppress(BlockingIOError):
            ahead += self.sock.recv(AHEAD_BYTES, socket.MSG_PEEK | socket.MSG_DONTWAIT)
        return ahead


class PunctualWorker(ThreadWorker):  # type: ignore[misc]
    """gunicorn's worker with threads, none of which waits for anybody."""

    def __init__(self, *args: Any, **options: Any) -> None:
        super().__init__(*args, **options)
        self._coming: dict[Connection, float] = {}
        self._closing: dict[Connection, float] = {}

    def accept(self, listener: socket.socket) -> None:
        """Take a connection in."""
        try:
            sock, client = listener.accept()
        except OSError as error:
            if error.errno not in (errno.EAGAIN, errno.ECONNABORTED, errno.EWOULDBLOCK):
                raise
            return
        self.nr_conns += 1
        self.enqueue_req(Connection(self, sock, client, listener))

    def enqueue_req(self, conn: Connection) -> None:
        """Hand a request to a thread once it has come."""
        self._look(conn, known=-1)

    def _look(self, conn: Connection, known: int) -> None:
        """`known`: how many bytes had come at the last look; no more of them now means that no more will come."""
        try:
            begin = conn.begin()
            if has_come(begin) or len(begin) == known:
                self._coming.pop(conn, None)
                _wake_at(conn.sock, 1)
                super().enqueue_req(conn)
                return
            # The loop hears of it when more is there than now.
            _wake_at(conn.sock, len(begin) + 1)
            self._coming.setdefault(conn, time.monotonic() + HEAD_S)
            self._wait(conn, partial(self._look, conn, len(begin)))
        except OSError:
            self._drop(conn, self._coming)

    def _wait(self, conn: Connection, look: Any) -> None:
        def ready(sock: socket.socket) -> None:
            self.poller.unregister(sock)
            look()

        conn.sock.setblocking(False)
        self.poller.register(conn.sock, selectors.EVENT_READ, ready)

    def close_later(self, conn: Connection) -> None:
        """Close a connection once the other side has, or after a while: what was answered may be on its way."""
        try:
            conn.sock.shutdown(socket.SHUT_WR)
            self._closing.setdefault(conn, time.monotonic() + CLOSING_S)
            self._wait(conn, partial(self._drain, conn))
        except (OSError, ValueError, KeyError):
            self._closing.pop(conn, None)
            TConn.close(conn)

    def _drain(self, conn: Connection) -> None:
        with contextlib.suppress(OSError):
            if conn.sock.recv(AHEAD_BYTES):
                self._wait(conn, partial(self._drain, conn))
                return
        self._closing.pop(conn, None)
        TConn.close(conn)

    def _drop(self, conn: Connection, waiting: dict[Connection, float]) -> None:
        waiting.pop(conn, None)
        with contextlib.suppress(OSError, KeyError, ValueError):
            self.poller.unregister(conn.sock)
        TConn.close(conn)
        if waiting is self._coming:
            self.nr_conns -= 1

    def handle_request(self, req: Any, conn: Any) -> Any:
        """The request is there."""
        conn.sock.settimeout(ANSWER_S)
        return super().handle_request(req, conn)

    def _keepalive_after(self, conn: Any, keepalive: Any) -> bool:
        """Whether the connection serves another request: not where a body that nobody read is still coming."""
        return bool(keepalive and conn.parser.finish_body(deadline=time.monotonic() + DRAIN_S))

    def notify(self) -> None:
        """Called every second: give up what came too late, and all that has not come where the worker ends."""
        super().notify()
        now = time.monotonic()
        for conn, deadline in list(self._coming.items()):
            if now > deadline or not self.alive:
                with contextlib.suppress(OSError):
                    if conn.begin():
                        conn.sock.send(TOO_SLOW)
                self._drop(conn, self._coming)
        for conn, deadline in list(self._closing.items()):
            if now > deadline or not self.alive:
                self._drop(conn, self._closing)


def _wake_at(sock: socket.socket, number: int) -> None:
    """Have the loop hear of a socket when so many bytes wait in it."""
    sock.setsockopt(socket.SOL_SOCKET, socket.SO_RCVLOWAT, number)
