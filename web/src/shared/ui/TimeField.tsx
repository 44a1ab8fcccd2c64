import { useState } from "react";
import { TextField } from "./plain";

interface Props {
  label: string;
  /** As hh:mm. */
  value: string;
  onChange: (value: string) => void;
}

/** A time of day, typed in any usual way; what is none is said and not taken. */
export function TimeField({ label, value, onChange }: Props) {
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
        }}
        onBlur={() => setTyped(null)}
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
