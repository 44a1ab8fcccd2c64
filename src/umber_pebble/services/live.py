"""What changed, told to every open stream."""

import json
import threading
from collections.abc import Callable
from typing import Any

Listener = Callable[[str], None]


class Broker:
    """Hands each message, as text, to all listeners; a listener takes it at once, or sees to it that it is told to load anew."""

    def __init__(self) -> None:
        self._lock = threading.Lock()
        self._listeners: dict[int, Listener] = {}
        self._next = 0

    def publish(self, **message: Any) -> None:
        text = json.dumps(message)
        with self._lock:
            listeners = list(self._listeners.values())
        for listener in listeners:
            listener(text)

    def listen(self, listener: Listener) -> Callable[[], None]:
        """Hears everything from now on, from any thread, until what is returned is called."""
        with self._lock:
            self._next += 1
            key = self._next
            self._listeners[key] = listener

        def stop() -> None:
            with self._lock:
                self._listeners.pop(key, None)

        return stop
