"""What changed, told to every open stream."""

import json
import queue
import threading
from collections.abc import Iterator
from typing import Any

HEARTBEAT_S = 10.0
WAITING_AT_MOST = 200


class Broker:
    """Hands each message to all listeners; a listener that falls behind is told to load anew."""

    def __init__(self) -> None:
        self._lock = threading.Lock()
        self._listeners: set[queue.Queue[str]] = set()

    def publish(self, **message: Any) -> None:
        text = json.dumps(message)
        with self._lock:
            for listener in self._listeners:
                try:
                    listener.put_nowait(text)
                except queue.Full:
                    listener.queue.clear()
                    listener.put_nowait(json.dumps({"topic": "all"}))

    def listen(self) -> Iterator[str | None]:
        """Messages as they come, None as a heartbeat; registered before the first is asked for."""
        listener: queue.Queue[str] = queue.Queue(WAITING_AT_MOST)
        with self._lock:
            self._listeners.add(listener)
        return self._messages(listener)

    def _messages(self, listener: "queue.Queue[str]") -> Iterator[str | None]:
        try:
            while True:
                try:
                    yield listener.get(timeout=HEARTBEAT_S)
                except queue.Empty:
                    yield None
        finally:
            with self._lock:
                self._listeners.discard(listener)
