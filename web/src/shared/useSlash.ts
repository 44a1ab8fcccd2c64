import { useEffect } from "react";

/** What / does, where nobody is typing. */
export function useSlash(pressed: () => void): void {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const typing =
        event.target instanceof Element && event.target.closest("input, textarea, [role=dialog]");
      if (event.key !== "/" || typing || event.altKey || event.ctrlKey || event.metaKey) return;
      event.preventDefault();
      pressed();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [pressed]);
}
