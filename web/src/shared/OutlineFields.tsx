import { type PointerEvent, useRef, useState } from "react";
import { call, client, type Problem, problemOf } from "../api/client";
import { amount } from "./format/units";
import { useUnits } from "./format/useUnits";
import { type Point, pointsOf } from "./points";
import { ReadRemarks } from "./ReadRemarks";
import { Choice } from "./ui/controls";
import { FileButton } from "./ui/files";
import { NumberField } from "./ui/NumberField";

type Corner = Point;

const readOutline = (svg: string, width_m: number | null) =>
  call(client.POST("/api/figures/outline", { body: { svg, width_m } }));

const PAD_PX = 264;
const SNAP_M = 0.0005;

/** An outline: corners to be dragged, set and taken away on a pad, or read from an SVG file. */
export function OutlineFields({
  corners,
  within = [],
  onChange,
}: {
  corners: Corner[];
  /** What it lies in, drawn behind it. */
  within?: Point[];
  onChange: (corners: Corner[]) => void;
}) {
  const units = useUnits();
  const [width, setWidth] = useState<number | null>(null);
  const [tool, setTool] = useState<"drag" | "add" | "remove">("drag");
  const [remarks, setRemarks] = useState<string[]>([]);
  const [refused, setRefused] = useState<Problem | null>(null);
  const importText = async (text: string) => {
    setRefused(null);
    setRemarks([]);
    try {
      const read = await readOutline(text, width);
      setRemarks(read.remarks);
      onChange(pointsOf(read.corners));
    } catch (error) {
      setRefused(problemOf(error));
    }
  };
  return (
    <div className="space-y-3">
      <Pad corners={corners} within={within} onChange={onChange} tool={tool} />
      <Choice
        label={`Corners, on a grid of ${amount(0.005, "length", units)}`}
        value={tool}
        options={[
          { key: "drag", name: "move" },
          { key: "add", name: "add" },
          { key: "remove", name: "take away" },
        ]}
        onChange={setTool}
      />
      <div className="flex items-end gap-4">
        <div className="w-28">
          <NumberField
            label="Scale to width"
            quantity="length"
            value={width}
            onChange={setWidth}
            onClear={() => setWidth(null)}
          />
        </div>
        <FileButton label="SVG file" accept=".svg,image/svg+xml" onText={(text) => void importText(text)}>
          Import an SVG file
        </FileButton>
      </div>
      <ReadRemarks refused={refused} remarks={remarks} />
    </div>
  );
}

function Pad({
  corners,
  within,
  onChange,
  tool,
}: {
  corners: Corner[];
  within: Point[];
  onChange: (corners: Corner[]) => void;
  tool: "drag" | "add" | "remove";
}) {
  const ref = useRef<SVGSVGElement>(null);
  const held = useRef<number | null>(null);
  const reach = Math.max(...[...corners, ...within].flat().map(Math.abs)) * 1.25;
  const scale = PAD_PX / (2 * reach);
  const sx = (v: number) => PAD_PX / 2 + v * scale;
  const sy = (v: number) => PAD_PX / 2 - v * scale;
  const place = (event: PointerEvent): Corner => {
    const box = ref.current?.getBoundingClientRect();
    if (!box) return [0, 0];
    const snap = (v: number) => Math.round(v / SNAP_M) * SNAP_M;
    return [
      snap(((event.clientX - box.left) / box.width - 0.5) * 2 * reach),
      snap((0.5 - (event.clientY - box.top) / box.height) * 2 * reach),
    ];
  };
  const many = corners.length > 60;
  const lines = Array.from(
    { length: Math.floor(reach / 0.005) * 2 + 1 },
    (_, i) => (i - Math.floor(reach / 0.005)) * 0.005,
  );
  return (
    <svg
      ref={ref}
      viewBox={`0 0 ${PAD_PX} ${PAD_PX}`}
      className="w-full max-w-72 touch-none bg-ground"
      role="img"
      aria-label={`Outline of ${corners.length} corners`}
      onPointerDown={(event) => {
        if (tool === "add") onChange(withCorner(corners, place(event)));
      }}
      onPointerMove={(event) => {
        if (held.current === null || event.buttons === 0) return;
        const moved = place(event);
        onChange(corners.map((c, i) => (i === held.current ? moved : c)));
      }}
      onPointerUp={() => {
        held.current = null;
      }}
    >
      {lines.map((v) => (
        <path
          key={v}
          d={`M${sx(v)} 0V${PAD_PX}M0 ${sy(v)}H${PAD_PX}`}
          stroke="var(--line)"
          strokeWidth="0.6"
        />
      ))}
      {within.length > 0 && (
        <polygon
          points={within.map(([x, y]) => `${sx(x)},${sy(y)}`).join(" ")}
          fill="none"
          stroke="var(--quiet)"
          strokeWidth="1.5"
          strokeDasharray="5 4"
        />
      )}
      <polygon
        points={corners.map(([x, y]) => `${sx(x)},${sy(y)}`).join(" ")}
        fill="var(--melt)"
        stroke="var(--glass)"
        strokeWidth="2"
      />
      {!many &&
        corners.map(([x, y], i) => (
          <circle
            // biome-ignore lint/suspicious/noArrayIndexKey: a corner is its place in the row
            key={i}
            cx={sx(x)}
            cy={sy(y)}
            r="8"
            fill="var(--glass)"
            className="cursor-grab"
            onPointerDown={(event) => {
              if (tool === "drag") held.current = i;
              else if (tool === "remove" && corners.length > 3) {
                event.stopPropagation();
                onChange(corners.filter((_, other) => other !== i));
              }
            }}
          />
        ))}
    </svg>
  );
}

/** A new corner goes between the two whose side it is nearest to. */
function withCorner(corners: Corner[], at: Corner): Corner[] {
  const far = (a: Corner, b: Corner) => Math.hypot(a[0] - b[0], a[1] - b[1]);
  const detour = (i: number) => {
    const [a, b] = [corners[i], corners[(i + 1) % corners.length]] as [Corner, Corner];
    return far(a, at) + far(at, b) - far(a, b);
  };
  const best = corners.map((_, i) => i).reduce((a, b) => (detour(b) < detour(a) ? b : a), 0);
  return [...corners.slice(0, best + 1), at, ...corners.slice(best + 1)];
}
