"""Who speaks HTTP to the HTTPS door is told the right address: the handshake sees it and answers in its stead."""

import ssl
from typing import Any


def tells(context: ssl.SSLContext, address: str) -> ssl.SSLContext:
    """The same context, whose handshake answers plain HTTP with where to go."""

    class Told(ssl.SSLObject):
        outgoing: ssl.MemoryBIO
        told = False

        @classmethod
        def _create(cls, incoming: ssl.MemoryBIO, outgoing: ssl.MemoryBIO, *args: Any, **named: Any) -> "Told":
            made = super()._create(incoming, outgoing, *args, **named)  # type: ignore[misc]
            made.outgoing = outgoing
            return made  # type: ignore[no-any-return]

        def do_handshake(self) -> None:
            try:
                super().do_handshake()
            except ssl.SSLError as error:
                if self.told or error.reason not in ("HTTP_REQUEST", "HTTPS_PROXY_REQUEST"):
                    raise
                self.told = True
                self.outgoing.write(_answer(address))
                # what is written goes out before more is asked of the peer, which has nothing to add
                raise ssl.SSLWantReadError from error

    context.sslobject_class = Told
    return context


def _answer(address: str) -> bytes:
    said = f"This door speaks HTTPS: {address}\n".encode()
    head = f"HTTP/1.1 308 Permanent Redirect\r\nLocation: {address}\r\nConnection: close\r\nContent-Length: {len(said)}\r\n"
    return f"{head}Content-Type: text/plain; charset=utf-8\r\n\r\n".encode() + said
