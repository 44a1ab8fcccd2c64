import { useEffect, useRef, useState } from "react";

/** The width of an element in pixels, followed as it changes. */
export function useWidth<E extends Element>(first: number) {
  const ref = useRef<E>(null);
  const [width, setWidth] = useState(first);
  useEffect(() => {
    if (!ref.current) return;
    const observer = new ResizeObserver(
      ([entry]) => entry && setWidth(Math.max(80, entry.contentRect.width)),
    );
    observer.observe(ref.current);
    return () => observer.disconnect();
  }, []);
  return [ref, width] as const;
}
