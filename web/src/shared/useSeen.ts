import { useEffect, useRef, useState } from "react";

/** Whether an element is on the screen, or nearly: what it shows is asked for then. */
export function useSeen<E extends Element>() {
  const ref = useRef<E>(null);
  const [seen, setSeen] = useState(false);
  useEffect(() => {
    if (!ref.current) return;
    const observer = new IntersectionObserver(([entry]) => setSeen(entry?.isIntersecting ?? false), {
      rootMargin: "300px",
    });
    observer.observe(ref.current);
    return () => observer.disconnect();
  }, []);
  return [ref, seen] as const;
}
