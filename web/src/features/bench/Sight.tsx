import type { Schemas } from "../../api/client";
import { type Seen, SIGHTS } from "../../shared/sights";
import { Dialog } from "../../shared/ui/controls";

/** What is seen of the selected round moves its windows, as a reading does. */
export function SightDialog({
  open,
  onClose,
  subject,
  onSeen,
}: {
  open: boolean;
  onClose: () => void;
  subject: Schemas["Ribbon"];
  onSeen: (what: Seen<"round">) => void;
}) {
  return (
    <Dialog open={open} onClose={onClose} title={`${subject.name}: what do you see?`} bench>
      <div className="grid gap-3 sm:grid-cols-2">
        {SIGHTS[subject.wording].map(([what, words]) => (
          <button
            key={what}
            type="button"
            onClick={() => {
              onSeen(what);
              onClose();
            }}
            className="min-h-24 rounded-sm bg-raised px-6 text-2xl font-bold hover:bg-glass hover:text-on-glass"
          >
            {words}
          </button>
        ))}
      </div>
      <p className="mt-4 text-lg">Seen just now. The ribbon and its windows move with it.</p>
      <button type="button" onClick={onClose} className="mt-2 min-h-16 px-4 text-xl font-bold text-glass">
        Leave it
      </button>
    </Dialog>
  );
}
