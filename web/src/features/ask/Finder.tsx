import { Combobox, ComboboxInput, ComboboxOption, ComboboxOptions } from "@headlessui/react";
import { useQuery } from "@tanstack/react-query";
import { useCallback, useEffect, useEffectEvent, useRef, useState } from "react";
import { useNavigate } from "react-router";
import { findQuery } from "../../shared/ask";
import { dayAndTime } from "../../shared/format/zone";
import { type Goal, goalsOf, lastUsed, noteUsed } from "../../shared/found";
import { useZone } from "../../shared/kitchen";
import { useSlash } from "../../shared/useSlash";

interface Props {
  /** Of the field itself; the list under it looks the same everywhere. */
  className: string;
  autoFocus?: boolean;
  onGone?: () => void;
}

/** A field that finds anything by the words of the trade, and leads there. */
export function Finder({ className, autoFocus, onGone }: Props) {
  const navigate = useNavigate();
  const zone = useZone();
  const [said, setSaid] = useState("");
  const [wanted, setWanted] = useState(false);
  const field = useRef<HTMLInputElement>(null);
  useSlash(useCallback(() => field.current?.focus(), []));
  const text = said.trim();
  const { data: found, isPlaceholderData } = useQuery({ ...findQuery(text), enabled: text !== "" });
  const goals =
    text === "" ? lastUsed() : found ? goalsOf(found, (at) => dayAndTime(new Date(at), zone)) : [];
  const go = (goal: Goal | null | undefined) => {
    setWanted(false);
    if (!goal) return;
    noteUsed(goal);
    setSaid("");
    navigate(goal.to);
    onGone?.();
  };
  // Enter may come before the answer to what is typed by now: it leads on as soon as that is there
  const arrived = useEffectEvent(() => go(goals[0]));
  const known = found !== undefined && !isPlaceholderData;
  useEffect(() => {
    if (wanted && known) arrived();
  }, [wanted, known]);
  return (
    <Combobox immediate value={null} onChange={go} onClose={() => setSaid("")}>
      <ComboboxInput
        ref={field}
        aria-label="Find, or ask"
        placeholder="Find, or ask: when can I turn out 4 mm hearts"
        autoComplete="off"
        autoFocus={autoFocus}
        maxLength={200}
        className={className}
        value={said}
        onChange={(event) => {
          setWanted(false);
          setSaid(event.target.value);
        }}
        onKeyDown={(event) => {
          if (event.key !== "Enter" || text === "" || known) return;
          event.preventDefault();
          setWanted(true);
        }}
      />
      <ComboboxOptions
        anchor={{ to: "bottom start", gap: 4, padding: 12 }}
        className="z-50 max-h-[70vh] w-[34rem] max-w-[94vw] overflow-auto border border-line bg-raised text-ink shadow-xl empty:invisible"
      >
        {text === "" && goals.length > 0 && <p className="px-4 pt-2 text-sm text-quiet">Used last</p>}
        {goals.map((goal) => (
          <ComboboxOption
            key={`${goal.to} ${goal.name}`}
            value={goal}
            className="flex min-h-12 cursor-pointer flex-col justify-center px-4 py-1.5 data-focus:bg-glass-soft"
          >
            <strong className="text-lg leading-tight">{goal.name}</strong>
            <span className="leading-tight text-quiet data-focus:text-ink">{goal.note}</span>
          </ComboboxOption>
        ))}
        {text !== "" && found && goals.length === 0 && (
          <p className="px-4 py-3">
            Nothing is called that. Try a thing, a melt or a question: unmould, how much, sweat.
          </p>
        )}
      </ComboboxOptions>
    </Combobox>
  );
}
