import { useEffect, useState } from "react";

/** A value that follows after a pause, so that a drag asks for figures a few times a second, not at every pixel. */
export function useDebounced<T>(value: T, pauseMs: number): T {
  const [later, setLater] = useState(value);
  useEffect(() => {
    const timer = window.setTimeout(() => setLater(value), pauseMs);
    return () => window.clearTimeout(timer);
  }, [value, pauseMs]);
  return later;
}
