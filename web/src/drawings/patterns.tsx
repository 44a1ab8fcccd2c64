import type { Schemas } from "../api/client";

/** Fills of states: by pattern as well as tone. One set of defs for each drawing. */

export type Fill = "hatch" | "dots" | "close-dots" | "crosses" | "plain" | "open";

export const FILL_OF: Record<Schemas["Band"]["state"], Fill> = {
  release: "open",
  too_hot: "hatch",
  too_warm: "hatch",
  browns: "hatch",
  heating: "dots",
  soft: "dots",
  setting: "dots",
  thickening: "close-dots",
  stiff: "crosses",
  set: "plain",
  pour: "open",
  bend: "open",
  unmould: "open",
  next_pass: "open",
  film: "open",
  drag: "open",
  comb: "open",
  groove: "open",
  cut: "open",
  shape: "open",
  hold: "hatch",
  holds: "close-dots",
  firm: "open",
  stick: "open",
  fluid: "dots",
  thickens: "close-dots",
  touch: "plain",
  over_chilled: "crosses",
  overheats: "hatch",
  ready: "open",
  flows: "open",
  tempering: "dots",
};

export function Patterns({ id }: { id: string }) {
  return (
    <>
      <pattern
        id={`${id}-hatch`}
        width="10"
        height="10"
        patternUnits="userSpaceOnUse"
        patternTransform="rotate(45)"
      >
        <rect width="10" height="10" fill="var(--panel)" />
        <rect width="4" height="10" fill="var(--heat)" opacity="0.5" />
      </pattern>
      <pattern id={`${id}-dots`} width="14" height="14" patternUnits="userSpaceOnUse">
        <rect width="14" height="14" fill="var(--raised)" />
        <circle cx="4" cy="4" r="1.4" fill="var(--quiet)" opacity="0.55" />
      </pattern>
      <pattern id={`${id}-close-dots`} width="7" height="7" patternUnits="userSpaceOnUse">
        <rect width="7" height="7" fill="var(--raised)" />
        <circle cx="3" cy="3" r="1.5" fill="var(--quiet)" opacity="0.6" />
      </pattern>
      <pattern id={`${id}-crosses`} width="12" height="12" patternUnits="userSpaceOnUse">
        <rect width="12" height="12" fill="var(--raised)" />
        <path d="M0 0L12 12M12 0L0 12" stroke="var(--quiet)" strokeWidth="1" opacity="0.55" />
      </pattern>
      <pattern
        id={`${id}-mould`}
        width="8"
        height="8"
        patternUnits="userSpaceOnUse"
        patternTransform="rotate(45)"
      >
        <rect width="8" height="8" fill="var(--mould)" />
        <rect width="1.5" height="8" fill="var(--mould-hatch)" />
      </pattern>
    </>
  );
}

export function paint(id: string, fill: Fill): string {
  if (fill === "open") return "var(--glass)";
  if (fill === "plain") return "#5a3a2a";
  return `url(#${id}-${fill})`;
}
