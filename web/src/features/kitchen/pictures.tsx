import type { Schemas } from "../../api/client";

/** Vessels are drawn to one scale, so that a pot is told from a cup. */
const PX_PER_M = 420;
const LINE = { fill: "none", stroke: "var(--ink)", strokeWidth: 2.5 } as const;

export function VesselPicture({ of }: { of: Schemas["Vessel"] }) {
  const [w, h] = [of.diameter_m * PX_PER_M, of.height_m * PX_PER_M];
  return (
    <svg width={w + 8} height={h + 4} aria-hidden="true">
      <path
        d={`M4 2V${h - 6}q0 8 8 8H${w - 4}q8 0 8 -8V2`}
        {...LINE}
        fill={of.made_of === "glass" ? "var(--glass-soft)" : "var(--mould)"}
      />
    </svg>
  );
}

export function RingPicture() {
  return (
    <svg width="76" height="26" aria-hidden="true">
      <ellipse cx="38" cy="13" rx="36" ry="11" {...LINE} />
      <ellipse cx="38" cy="13" rx="24" ry="7" {...LINE} stroke="var(--heat)" />
      <ellipse cx="38" cy="13" rx="11" ry="3" {...LINE} stroke="var(--heat)" />
    </svg>
  );
}

export function OvenPicture() {
  return (
    <svg width="104" height="62" aria-hidden="true">
      <rect x="2" y="2" width="100" height="58" {...LINE} fill="var(--mould)" />
      <rect x="10" y="10" width="62" height="42" {...LINE} fill="var(--ink)" />
      <path d="M80 14h14M80 24h14M80 34h14" {...LINE} />
    </svg>
  );
}

export function BathPicture() {
  return (
    <svg width="84" height="44" aria-hidden="true">
      <path d="M4 14V34q0 8 8 8H72q8 0 8 -8V14" {...LINE} />
      <path d="M6 26q9 -6 18 0t18 0t18 0t18 0" {...LINE} stroke="var(--glass)" />
    </svg>
  );
}

/** A cold place is a cupboard with a door; a place in the room what lies under the moulds, as thick as it is. */
export function PlacePicture({ of }: { of: Schemas["Place"] }) {
  if (of.kind === "room") {
    const thick = Math.min(Math.max(of.thickness_m * PX_PER_M, 4), 24);
    return (
      <svg width="104" height={thick + 22} aria-hidden="true">
        {of.fan && <path d="M84 4c6 3 6 9 0 12M90 2c9 4 9 12 0 16" {...LINE} stroke="var(--glass)" />}
        <rect x="2" y="20" width="100" height={thick} {...LINE} fill="var(--mould)" />
      </svg>
    );
  }
  const high = of.kind === "freezer" ? 72 : 104;
  return (
    <svg width="72" height={high} aria-hidden="true">
      <rect x="2" y="2" width="68" height={high - 3} {...LINE} fill="var(--glass-soft)" />
      <path d={`M12 ${high / 2 - 12}v24`} {...LINE} />
      {of.kind === "freezer" && (
        <path d="M40 22v28M28 29l24 14M52 29L28 43" {...LINE} stroke="var(--glass)" />
      )}
    </svg>
  );
}
