import { useMutation } from "@tanstack/react-query";
import { problemOf, type Schemas } from "../../api/client";
import { amount, duration } from "../../shared/format/units";
import { useUnits } from "../../shared/format/useUnits";
import { wordProblem } from "../../shared/format/words";
import { Button } from "../../shared/ui/plain";
import { type Asked, type Order, shorterOf } from "./queries";

/** A bound further away than this says nothing. */
const KNOWN_FRAC = 0.5;

interface Props {
  asked: Asked;
  onChange: (patch: Partial<Order>) => void;
}

/** What a press has found: a shorter day, one with fewer melts, or nothing. */
function foundWords({ timetable, sooner_s }: Schemas["Shorter"]): string {
  if (sooner_s >= 1) return `${duration(sooner_s)} shorter.`;
  return timetable ? "Fewer melts, no shorter." : "Nothing shorter was found this time.";
}

/** Searches for a shorter day, a few seconds at a press; what is found becomes the order's own. */
export function Shorter({ asked, onChange }: Props) {
  const units = useUnits();
  const { mutate, isPending, data, error } = useMutation({
    mutationFn: () => shorterOf(asked),
    onSuccess: ({ timetable }) => {
      if (timetable) onChange({ timetable });
    },
  });
  return (
    <p className="flex flex-wrap items-center gap-x-4 border-b border-line py-1.5" aria-busy={isPending}>
      <Button kind="quiet" onClick={() => mutate()} disabled={isPending || data?.best === true}>
        {isPending ? "Looking…" : data ? "Look further" : "Look for a shorter day"}
      </Button>
      <span aria-live="polite" className="text-quiet">
        {error
          ? wordProblem(problemOf(error), units)
          : data &&
            `${foundWords(data)} ${
              data.best
                ? "No other order of these melts is shorter."
                : data.gap_frac < KNOWN_FRAC
                  ? `None can be more than ${amount(data.gap_frac, "share", units)} shorter than this.`
                  : "How much shorter it could be is not known."
            }`}
      </span>
    </p>
  );
}
