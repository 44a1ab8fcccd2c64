import { useId } from "react";
import { Patterns } from "./patterns";

export interface Share {
  name: string;
  kg: number;
  kept: boolean;
}

/** A pot to scale with what is in it: what goes into moulds clear, what stays hatched. */
export function Vessel({
  diameter,
  height,
  depth,
  shares,
  scale,
  label,
  tone = "var(--melt)",
  line = "var(--glass)",
}: {
  diameter: number;
  height: number;
  depth: number;
  shares: Share[];
  scale: number;
  label: string;
  tone?: string;
  line?: string;
}) {
  const id = useId();
  const w = diameter * scale;
  const h = height * scale;
  const total = shares.reduce((sum, share) => sum + share.kg, 0) || 1;
  let base = h;
  return (
    <svg width={w + 12} height={h + 12} role="img" aria-label={label} className="max-w-full">
      <defs>
        <Patterns id={id} />
        <pattern
          id={`${id}-kept`}
          width="8"
          height="8"
          patternUnits="userSpaceOnUse"
          patternTransform="rotate(45)"
        >
          <rect width="8" height="8" fill={tone} />
          <rect width="2.5" height="8" fill={line} />
        </pattern>
      </defs>
      {shares.map((share) => {
        const tall = (share.kg / total) * depth * scale;
        base -= tall;
        return (
          <rect
            key={share.name}
            x="7"
            width={w - 2}
            y={base + 4}
            height={tall}
            fill={share.kept ? `url(#${id}-kept)` : tone}
            stroke={line}
            strokeWidth="0.8"
          />
        );
      })}
      <path
        d={`M6 2V${h - 4}q0 8 8 8H${w - 2}q8 0 8 -8V2`}
        fill="none"
        stroke="var(--ink)"
        strokeWidth="3.5"
      />
    </svg>
  );
}
