import { Fragment, useSyncExternalStore } from "react";
import { Link } from "react-router";
import type { Kind } from "../api/things";
import { eventWords } from "../shared/eventWords";
import { useUnits } from "../shared/format/useUnits";
import { wordProblem } from "../shared/format/words";
import { dismissRefused } from "../shared/outbox";
import { useOutbox } from "../shared/runEvents";
import { notSaved, onSaving } from "../shared/saving";

const PAGES: Record<Kind, (id: string) => string> = {
  kitchen: () => "/kitchen",
  mould: (id) => `/pieces/moulds/${id}`,
  piece: (id) => `/pieces/${id}`,
  order: (id) => `/orders/${id}`,
  material: (id) => `/kitchen/materials/${id}`,
  colour: () => "/kitchen/colours",
};

/** What was noted on this device or typed, and the server has not taken yet, or never will: on every screen. */
export function Outbox() {
  const units = useUnits();
  const box = useOutbox();
  const waiting = box.filter((item) => item.refused === null);
  const refused = box.filter((item) => item.refused !== null);
  const typed = useSyncExternalStore(onSaving, notSaved);
  if (box.length === 0 && typed.length === 0) return null;
  return (
    <div
      className="flex flex-wrap items-center gap-x-6 gap-y-2 border-t border-line bg-panel px-5 py-2"
      role="status"
    >
      {waiting.length > 0 && (
        <span>
          <strong className="text-heat">Noted, not yet sent:</strong>{" "}
          {waiting.map((item) => eventWords(item.event.kind)).join(", ")}
        </span>
      )}
      {typed.length > 0 && (
        <span>
          <strong className="text-heat">Typed, not saved:</strong>{" "}
          {typed.map((of, i) => (
            <Fragment key={of.id}>
              {i > 0 && ", "}
              <Link to={PAGES[of.kind](of.id)} className="font-bold text-glass">
                {"name" in of.now.doc ? of.now.doc.name : of.kind}
              </Link>
            </Fragment>
          ))}
        </span>
      )}
      {refused.length > 0 && (
        <span className="flex flex-wrap items-center gap-3">
          <span>
            <strong className="text-heat">Not taken:</strong>{" "}
            {refused
              .map(
                ({ event, refused: why }) =>
                  `${eventWords(event.kind)}, ${why ? wordProblem(why, units) : ""}`,
              )
              .join("; ")}
          </span>
          <button
            type="button"
            className="rounded-sm border border-line px-3 py-1 font-bold"
            onClick={() => void dismissRefused()}
          >
            Read
          </button>
        </span>
      )}
    </div>
  );
}
