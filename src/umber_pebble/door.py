"""The app as a server takes it: live streams of their own, everything else by Flask in threads, with its body whole."""

import asyncio
import json
from collections.abc import Awaitable, Callable
from http.cookies import SimpleCookie
from typing import Any

from a2wsgi import WSGIMiddleware

from umber_pebble.api.errors import Problem, Refused, invalid, problem_of
from umber_pebble.api.guard import DEVICE_COOKIE, IncomingRequest, check
from umber_pebble.core.errors import CoreError
from umber_pebble.services.access import Access
from umber_pebble.services.workshop import Workshop

Message = dict[str, Any]
Receive = Callable[[], Awaitable[Message]]
Send = Callable[[Message], Awaitable[None]]
THREADS = 16
LARGEST_BODY, LARGEST_FILE, FILE_PATH = 12_000_000, 60_000_000, "/api/workshop"
WHOLE_WITHIN_S = 60.0
STREAM_PATH, HEARTBEAT_S, WAITING_AT_MOST = "/api/stream", 10.0, 200
ALL_ANEW = json.dumps({"topic": "all"})


class Door:
    """One door to the app: this machine's own, or (local False) that to the kitchen's network."""

    def __init__(self, wsgi: Any, workshop: Workshop, access: Access, local: bool) -> None:
        self.workshop, self.access, self.local = workshop, access, local
        # its own types are those of another server
        self.wsgi: Any = WSGIMiddleware(wsgi, workers=THREADS)

    async def __call__(self, scope: Message, receive: Receive, send: Send) -> None:
        if scope["type"] == "lifespan":
            await _lifespan(receive, send)
        elif scope["type"] != "http":
            await send({"type": "websocket.close", "code": 1008})
        elif scope["path"] == STREAM_PATH and scope["method"] == "GET":
            await self._stream(scope, receive, send)
        else:
            await self._ask(scope, receive, send)

    async def _ask(self, scope: Message, receive: Receive, send: Send) -> None:
        """The body is taken in whole first, within a size and a time: no thread waits for a slow peer."""
        largest = LARGEST_FILE if scope["path"] == FILE_PATH else LARGEST_BODY
        try:
            body = await asyncio.wait_for(_body(receive, largest), WHOLE_WITHIN_S)
        except ConnectionResetError:
            # half a request is none
            return
        except TimeoutError:
            slow = f"the whole of it must be here within {WHOLE_WITHIN_S:g} seconds"
            await _answer(send, invalid("too_slow", "", None, slow).problem)
            return
        if body is None:
            large = f"this is too large: at most {largest:,} bytes"
            await _answer(send, invalid("too_large", "", None, large, {"high": largest}).problem)
            return
        named = [(k, v) for k, v in scope["headers"] if k not in (b"content-length", b"transfer-encoding")]
        length = (
            [(b"content-length", str(len(body)).encode())] if body or scope["method"] in ("POST", "PUT") else []
        )
        told = False

        async def whole() -> Message:
            nonlocal told
            if told:
                return await receive()
            told = True
            return {"type": "http.request", "body": body, "more_body": False}

        await self.wsgi({**scope, "headers": [*named, *length]}, whole, send)

    async def _stream(self, scope: Message, receive: Receive, send: Send) -> None:
        asked = _asked(scope, self.local)
        try:
            await asyncio.to_thread(check, asked, self.access)
        except (Refused, CoreError) as error:
            await _answer(send, problem_of(error))
            return
        queue: asyncio.Queue[str] = asyncio.Queue()
        loop = asyncio.get_running_loop()

        def put(text: str) -> None:
            if queue.qsize() >= WAITING_AT_MOST:
                while not queue.empty():
                    queue.get_nowait()
                text = ALL_ANEW
            queue.put_nowait(text)

        def heard(text: str) -> None:
            loop.call_soon_threadsafe(put, text)

        stop = self.workshop.broker.listen(heard)
        gone = asyncio.create_task(_until_gone(receive))
        try:
            headers = [(b"content-type", b"text/event-stream; charset=utf-8"), (b"cache-control", b"no-store")]
            await send({"type": "http.response.start", "status": 200, "headers": headers})
            await _say(send, "retry: 1000\n\n")
            while not gone.done():
                text = await _next(queue, gone)
                if text is not None and '"devices"' in text and not await self._still(asked):
                    break
                await _say(send, ": still here\n\n" if text is None else f"data: {text}\n\n")
            await send({"type": "http.response.body", "body": b"", "more_body": False})
        finally:
            stop()
            gone.cancel()

    async def _still(self, asked: IncomingRequest) -> bool:
        """Whether the device that listens has not been dropped."""
        try:
            await asyncio.to_thread(check, asked, self.access)
        except (Refused, CoreError):
            return False
        return True


async def _next(queue: asyncio.Queue[str], gone: "asyncio.Task[None]") -> str | None:
    """The next message, or None when it is time for a sign of life."""
    waiting = asyncio.create_task(queue.get())
    await asyncio.wait({waiting, gone}, timeout=HEARTBEAT_S, return_when=asyncio.FIRST_COMPLETED)
    if waiting.done():
        return waiting.result()
    waiting.cancel()
    return None


async def _until_gone(receive: Receive) -> None:
    while (await receive())["type"] != "http.disconnect":
        pass


async def _body(receive: Receive, largest: int) -> bytes | None:
    parts, size = list[bytes](), 0
    while True:
        message = await receive()
        if message["type"] == "http.disconnect":
            raise ConnectionResetError
        parts.append(message.get("body", b""))
        size += len(parts[-1])
        if size > largest:
            return None
        if not message.get("more_body"):
            return b"".join(parts)


def _asked(scope: Message, local: bool) -> IncomingRequest:
    headers = {key.decode("latin-1"): value.decode("latin-1") for key, value in scope["headers"]}
    cookies: SimpleCookie = SimpleCookie()
    cookies.load(headers.get("cookie", ""))
    token = cookies[DEVICE_COOKIE].value if DEVICE_COOKIE in cookies else None
    return IncomingRequest(headers.get("host", ""), headers.get("origin"), scope["path"], token, local)


async def _say(send: Send, text: str) -> None:
    await send({"type": "http.response.body", "body": text.encode(), "more_body": True})


async def _answer(send: Send, problem: Problem) -> None:
    headers = [(b"content-type", b"application/problem+json"), (b"connection", b"close")]
    await send({"type": "http.response.start", "status": problem.status, "headers": headers})
    await send({"type": "http.response.body", "body": problem.model_dump_json().encode(), "more_body": False})


async def _lifespan(receive: Receive, send: Send) -> None:
    while True:
        message = await receive()
        await send({"type": f"{message['type']}.complete"})
        if message["type"] == "lifespan.shutdown":
            return
