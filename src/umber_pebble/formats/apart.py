"""Files of others are read where reading can be stopped: in a process of its own, within a time and a memory."""

import multiprocessing
import resource
from collections.abc import Callable
from multiprocessing.connection import Connection
from typing import Any, ParamSpec, TypeVar

from umber_pebble.core.errors import OutOfRange

P = ParamSpec("P")
R = TypeVar("R")
WITHIN_S, MEMORY_BYTES = 10.0, 2_000_000_000
# its processes are forks of one that has read the program once and has no threads
_APART = multiprocessing.get_context("forkserver")
_APART.set_forkserver_preload(
    [f"umber_pebble.formats.{name}" for name in ("svg", "svg_lines", "palettes", "pictures", "readings", "curves")]
)


def apart(path: str, read: Callable[P, R], *args: P.args, **named: P.kwargs) -> R:
    """What a reader makes of a file.

    Args:
        path: the field the file came in
        read: a reader, found by its module and name
    Raises: OutOfRange: it took too long or too much memory. What the reader refuses.
    """
    mine, theirs = _APART.Pipe(duplex=False)
    process = _APART.Process(target=_read, args=(theirs, read, args, named), daemon=True)
    process.start()
    theirs.close()
    try:
        if not mine.poll(WITHIN_S):
            raise OutOfRange(
                f"reading it takes longer than {WITHIN_S:g} s: save it simpler, or in parts", path=path, got=None
            )
        answer: R | Exception = mine.recv()
    except EOFError:
        raise _too_much(path) from None
    finally:
        process.kill()
        process.join()
        mine.close()
    if isinstance(answer, MemoryError):
        raise _too_much(path)
    if isinstance(answer, Exception):
        raise answer
    return answer


def _too_much(path: str) -> OutOfRange:
    return OutOfRange("reading it takes too much memory: save it simpler, or in parts", path=path, got=None)


def _read(said: Connection, read: Callable[..., Any], args: tuple[Any, ...], named: dict[str, Any]) -> None:
    resource.setrlimit(resource.RLIMIT_AS, (MEMORY_BYTES, MEMORY_BYTES))
    try:
        answer = read(*args, **named)
    except Exception as error:
        # refused here, raised there
        answer = error
    said.send(answer)
