import { useEffect, useState } from "react";

/** A value that follows after a pause, so that a drag asks for figures a few times a second, not at every pixel; before: at first. */
export function useDebounced<T>(value: T, pauseMs: number, before = value): T {
  const [later, setLater] = useState(before);
  useEffect(() => {
    const timer = window.setTimeout(() => setLater(value), pauseMs);
    return () => window.clearTimeout(timer);
  }, [value, pauseMs]);
  return later;
}
