import { lazy, Suspense, useCallback, useState } from "react";
import { useSlash } from "../shared/useSlash";

const Finder = lazy(() => import("../features/ask/Finder").then((m) => ({ default: m.Finder })));

const LOOK = "w-72 max-w-full border-b-2 border-ink bg-transparent py-1.5 text-left text-lg";

/** A field at the top that finds anything; / reaches it from everywhere. */
export function FindField() {
  const [open, setOpen] = useState(false);
  useSlash(useCallback(() => setOpen(true), []));
  const closed = (
    <button type="button" className={`${LOOK} flex justify-between text-quiet`} onClick={() => setOpen(true)}>
      Find, or ask
      <kbd className="border border-line px-2 text-base" aria-hidden>
        /
      </kbd>
    </button>
  );
  return (
    <search
      className="w-72 max-w-full py-1"
      onBlur={(event) => {
        if (!event.currentTarget.contains(event.relatedTarget)) setOpen(false);
      }}
    >
      {open ? (
        <Suspense fallback={closed}>
          <Finder className={LOOK} autoFocus onGone={() => setOpen(false)} />
        </Suspense>
      ) : (
        closed
      )}
    </search>
  );
}
