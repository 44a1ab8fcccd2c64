import { useState } from "react";
import { TextField } from "./plain";

interface Props {
  label: string;
  /** As hh:mm. */
  value: string;
  onChange: (value: string) => void;
  /** Something is typed that is no time of day. */
  onNone?: () => void;
}

/** A time of day, typed in any usual way; what is none is said, stays to be mended, and is not taken. */
export function TimeField({ label, value, onChange, onNone }: Props) {
  const [typed, setTyped] = useState<string | null>(null);
  return (
    <div className="w-24">
      <TextField
        label={label}
        value={typed ?? value}
        error={typed !== null && asClock(typed) === null ? "as 16:30" : undefined}
        onChange={(text) => {
          setTyped(text);
          const next = asClock(text);
          if (next) onChange(next);
          else onNone?.();
        }}
        onBlur={() => typed !== null && asClock(typed) !== null && setTyped(null)}
      />
    </div>
  );
}

/** A typed time of day as hh:mm; null for what is none. */
function asClock(text: string): string | null {
  const [, hours, minutes = "00"] = /^\s*(\d{1,2})(?:[:.h]\s?(\d\d))?\s*$/.exec(text) ?? [];
  if (hours === undefined || Number(hours) > 23 || Number(minutes) > 59) return null;
  return `${hours.padStart(2, "0")}:${minutes}`;
}
