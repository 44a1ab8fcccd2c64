import { type PointerEvent, useRef, useState } from "react";
import type { Schemas } from "../../api/client";
import { type Point, pointsOf, spanOf } from "../../shared/points";
import { beadWide, type DrawnLine, lengthOf, lineOf, movedBy, pathOf, simplified, snapped } from "./drawing";

export type Tool = "straight" | "free" | "move" | "twice" | "remove";

interface Props {
  lines: DrawnLine[];
  bore_m: number;
  tone: string;
  tool: Tool;
  figures: Schemas["FiligreeFigures"] | undefined;
  /** As it is while hands are on it; none once they let go. */
  onDraft: (lines: DrawnLine[] | null) => void;
  onChange: (lines: DrawnLine[]) => void;
}

const WIDE = 540;
const HIGH = 440;
const AROUND_M = 0.012;
const LEAST_M = 0.1;
const GRID_M = 0.01;
const NEAR_PX = 14;
const EDGE_PX = 8;

interface Window {
  x0: number;
  y1: number;
  wide_m: number;
  high_m: number;
}

/** What is shown of the plane: all lines, with room round them, as wide and high as the pad. */
function windowOf(lines: DrawnLine[]): Window {
  const points = lines.flatMap(pathOf);
  const [x0, x1] = spanOf(points.map(([x]) => x));
  const [y0, y1] = spanOf(points.map(([, y]) => y));
  const metres = Math.max((x1 - x0 + 2 * AROUND_M) / WIDE, (y1 - y0 + 2 * AROUND_M) / HIGH, LEAST_M / WIDE);
  const [wide_m, high_m] = [WIDE * metres, HIGH * metres];
  return { x0: (x0 + x1 - wide_m) / 2, y1: (y0 + y1 + high_m) / 2, wide_m, high_m };
}

type Hand =
  | { what: "draw"; path: Point[] }
  | { what: "line" | "end"; line: number; end: number; from: Point };

/** Lines to be drawn, moved, marked and taken away, to scale, with what of them does not hold. */
export function DrawingPad({ lines, bore_m, tone, tool, figures, onDraft, onChange }: Props) {
  const ref = useRef<SVGSVGElement>(null);
  const hand = useRef<Hand | null>(null);
  const [draft, setDraft] = useState<DrawnLine[] | null>(null);
  // under the hand it keeps its scale
  const [kept, setKept] = useState<Window | null>(null);
  const seen = kept ?? windowOf(lines);
  const scale = WIDE / seen.wide_m;
  const x = (v: number) => (v - seen.x0) * scale;
  const y = (v: number) => (seen.y1 - v) * scale;
  const shown = draft ?? lines;
  const path = (points: Point[]) =>
    `M${points.map(([a, b]) => `${x(a).toFixed(1)} ${y(b).toFixed(1)}`).join("L")}`;
  const place = (event: PointerEvent): Point => {
    const box = ref.current?.getBoundingClientRect();
    if (!box) return [0, 0];
    return [
      seen.x0 + ((event.clientX - box.left) / box.width) * seen.wide_m,
      seen.y1 - ((event.clientY - box.top) / box.height) * seen.high_m,
    ];
  };
  const near_m = NEAR_PX / scale;
  const put = (next: DrawnLine[]) => {
    setDraft(next);
    onDraft(next);
  };
  const begin = (event: PointerEvent, now: Hand) => {
    ref.current?.setPointerCapture(event.pointerId);
    hand.current = now;
    setKept(seen);
  };
  const others = (line: number) => lines.filter((_, i) => i !== line);
  const drawn = (points: Point[]): DrawnLine[] => {
    const first = snapped(points[0] ?? [0, 0], lines, near_m);
    const last = snapped(points.at(-1) ?? first, lines, near_m);
    const between = tool === "free" ? simplified(points).slice(1, -1) : [];
    return [...lines, lineOf([first, ...between, last])];
  };
  const moved = (of: Extract<Hand, { what: "line" | "end" }>, at: Point): DrawnLine[] =>
    lines.map((line, i) => {
      if (i !== of.line) return line;
      const points = pathOf(line);
      if (of.what === "line")
        return lineOf(movedBy(points, at[0] - of.from[0], at[1] - of.from[1]), line.twice);
      const end = snapped(at, others(i), near_m);
      return lineOf(
        points.map((p, k) => (k === of.end ? end : p)),
        line.twice,
      );
    });
  const drag = (event: PointerEvent) => {
    const now = hand.current;
    if (!now) return;
    const at = place(event);
    if (now.what === "draw") {
      now.path = tool === "free" ? [...now.path, at] : [now.path[0] ?? at, at];
      if (lengthOf(now.path) > bore_m) put(drawn(now.path));
    } else put(moved(now, at));
  };
  const finish = () => {
    hand.current = null;
    setKept(null);
    onDraft(null);
    if (draft) onChange(draft);
    setDraft(null);
  };
  const press = (event: PointerEvent, i: number) => {
    const line = lines[i];
    if (!line || tool === "straight" || tool === "free") return;
    event.stopPropagation();
    if (tool === "twice") onChange(lines.map((of, k) => (k === i ? { ...of, twice: !of.twice } : of)));
    else if (tool === "remove") {
      if (lines.length > 1) onChange(others(i));
    } else {
      const [at, points] = [place(event), pathOf(line)];
      const away = (p: Point | undefined) =>
        p ? Math.hypot(p[0] - at[0], p[1] - at[1]) : Number.POSITIVE_INFINITY;
      const [first, last] = [away(points[0]), away(points.at(-1))];
      const end = first < last ? 0 : points.length - 1;
      begin(event, { what: Math.min(first, last) < near_m ? "end" : "line", line: i, end, from: at });
    }
  };
  const [, ...fallen] = figures?.parts ?? [];
  const apart = new Set(fallen.flat());
  return (
    <svg
      ref={ref}
      viewBox={`0 0 ${WIDE} ${HIGH}`}
      width={WIDE}
      height={HIGH}
      className={`h-auto max-w-full touch-none self-start bg-raised ${tool === "straight" || tool === "free" ? "cursor-crosshair" : ""}`}
      role="img"
      aria-label={`Drawing of ${lines.length} ${lines.length === 1 ? "line" : "lines"}, a square is 1 cm`}
      onPointerDown={(event) => {
        if (tool === "straight" || tool === "free") begin(event, { what: "draw", path: [place(event)] });
      }}
      onPointerMove={drag}
      onPointerUp={finish}
      onPointerCancel={finish}
    >
      <Grid window={seen} x={x} y={y} />
      {shown.map((line, i) => {
        const d = path(pathOf(line));
        const broad = beadWide(bore_m, line.twice) * scale;
        return (
          <g
            // biome-ignore lint/suspicious/noArrayIndexKey: a line is its place in the drawing
            key={i}
            className={tool === "move" ? "cursor-grab" : ""}
            onPointerDown={(event) => press(event, i)}
          >
            <path d={d} fill="none" stroke="transparent" strokeWidth={Math.max(broad, 2 * NEAR_PX)} />
            {apart.has(i) && (
              <path
                d={d}
                fill="none"
                stroke="var(--heat)"
                strokeWidth={broad + EDGE_PX}
                strokeLinecap="round"
                strokeLinejoin="round"
              />
            )}
            <path
              d={d}
              fill="none"
              stroke={tone}
              strokeWidth={broad}
              strokeLinecap="round"
              strokeLinejoin="round"
            />
            {line.twice && <path d={d} fill="none" stroke="var(--ground)" strokeWidth="1.2" opacity="0.7" />}
          </g>
        );
      })}
      {figures && <Weak figures={figures} path={path} x={x} y={y} />}
    </svg>
  );
}

/** What reaches too far, and the joins that something hangs on alone. */
function Weak({
  figures,
  path,
  x,
  y,
}: {
  figures: Schemas["FiligreeFigures"];
  path: (points: Point[]) => string;
  x: (v: number) => number;
  y: (v: number) => number;
}) {
  const far = [
    ...figures.spans.map((span) => span.points),
    ...figures.joins.filter((join) => join.far).flatMap((join) => join.lines),
  ];
  const d = far.map((points) => path(pointsOf(points))).join("");
  return (
    <g pointerEvents="none" fill="none">
      <path d={d} stroke="var(--heat)" strokeWidth="3" strokeDasharray="9 5" />
      {figures.joins.map(({ at, far, loose_end }) => {
        const [a, b] = at;
        if (a === undefined || b === undefined || (loose_end && !far)) return null;
        return (
          <circle
            key={`${a} ${b}`}
            cx={x(a)}
            cy={y(b)}
            r="9"
            stroke={far ? "var(--heat)" : "var(--glass)"}
            strokeWidth="2.5"
          />
        );
      })}
    </g>
  );
}

function Grid({
  window: { x0, y1, wide_m, high_m },
  x,
  y,
}: {
  window: Window;
  x: (v: number) => number;
  y: (v: number) => number;
}) {
  const steps = (from: number, long: number) =>
    Array.from({ length: Math.ceil(long / GRID_M) }, (_, i) => (Math.ceil(from / GRID_M) + i) * GRID_M);
  return (
    <path
      d={`${steps(x0, wide_m)
        .map((v) => `M${x(v)} 0V${HIGH}`)
        .join("")}${steps(y1 - high_m, high_m)
        .map((v) => `M0 ${y(v)}H${WIDE}`)
        .join("")}`}
      stroke="var(--line)"
      strokeWidth="0.7"
    />
  );
}
