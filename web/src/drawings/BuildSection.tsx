import { type PointerEvent, useId, useRef } from "react";
import type { Schemas } from "../api/client";
import type { Is } from "../shared/moulds";
import { farthest, type Point, pointsOf, spanOf } from "../shared/points";
import { Patterns } from "./patterns";
import { Edge } from "./SectionEdge";

export interface DrawnLayer {
  index: number;
  rings: Point[][];
  across_m: number;
  height_m: number;
  tone: string;
  /** Melts it is marbled with, and their shares; whether they lie side by side in stripes. */
  marble: { veins: { tone: string; share: number }[]; striped: boolean };
  grainy: boolean;
  name: string;
  note: string;
}

interface Props {
  section: Schemas["Section"];
  /** The tone of a body that is coated; none where it is cast in a mould. */
  body: string | null;
  /** What it is made in or on: under what is cut out of a sheet is only what that lies on; lines are seen from above. */
  on: Is | "body" | "hand";
  layers: DrawnLayer[];
  /** What is not drawn as a layer: a stick, by its size. */
  stick: { diameter_m: number; inside_m: number } | null;
  selected: number;
  onSelect: (index: number) => void;
  /** The edge of the selected pass that may be dragged: its height over the floor, and its name. */
  edge: { height_m: number; level: boolean; slope: number; name: string } | null;
  onEdge: (height_m: number) => void;
  length: (si: number) => string;
  width: number;
}

const STICK_OUT = 70;
const STICK_UP = 40;
const VEIN_PX = 22;
const TILE_PX = 64;

/** A vein through a tile of a marbled melt, so thick that it has just its share. */
const vein = (thick: number) =>
  `M0 4Q16 -4 32 4T64 4V${4 + thick}Q48 ${12 + thick} 32 ${4 + thick}T0 ${4 + thick}Z`;

/** Where in a tile each vein begins: what the first melt has lies between them. */
function veinsOf(veins: DrawnLayer["marble"]["veins"]) {
  const gap = (1 - veins.reduce((sum, of) => sum + of.share, 0)) / veins.length;
  let from = 0;
  return veins.map((of) => {
    const at = from;
    from += of.share + gap;
    return { ...of, from: at };
  });
}

const MARGIN = 34;
const TOP = 112;
const LABEL_ROOM = 92;
const SIDE_SHARE = 0.06;
const TALLEST = 250;
const PAPER_PX = 3;

/** What hands model lies in no mould: as large as it is. */
function around(layers: DrawnLayer[]): Pick<Schemas["Section"], "runs" | "across_m" | "depth_m" | "wall_m"> {
  const rings = layers.flatMap((layer) => layer.rings);
  const none = { runs: [], wall_m: 0, across_m: LEAST_M, depth_m: LEAST_M };
  if (rings.length === 0) return none;
  return { ...none, across_m: 2 * farthest(rings, 0), depth_m: farthest(rings, 1) };
}

const LEAST_M = 0.05;

/** A build cut open, to scale: the mould hatched, or the body that is dipped; every pass as a layer in its own tone, named by a line to it. */
export function BuildSection(p: Props) {
  const id = useId();
  const ref = useRef<SVGSVGElement>(null);
  const { runs, across_m, depth_m, wall_m } = p.on === "hand" ? around(p.layers) : p.section;
  const side_m = Math.max(wall_m, across_m * SIDE_SHARE);
  const scale = Math.min((p.width - 2 * MARGIN) / (across_m + 2 * side_m), TALLEST / (depth_m + wall_m));
  const middle = p.width / 2;
  const x = (across: number) => middle + across * scale;
  const floor = TOP + depth_m * scale;
  const y = (level: number) => floor - level * scale;
  const side = (across_m / 2 + side_m) * scale;
  const bottom = floor + wall_m * scale;
  const height = bottom + LABEL_ROOM;
  const path = (ring: Point[]) =>
    `M${ring.map(([a, z]) => `${x(a).toFixed(2)} ${y(z).toFixed(2)}`).join("L")}Z`;
  const cut = runs.map(pointsOf);
  const cavity = cut.map(path).join("");
  const open = spanOf(p.on === "hand" ? [-across_m / 2, across_m / 2] : [0, ...cut.flat().map(([a]) => a)]);
  const drag = (event: PointerEvent<SVGSVGElement>) => {
    if (!p.edge || !ref.current || event.buttons === 0) return;
    const box = ref.current.getBoundingClientRect();
    const at = ((event.clientY - box.top) / box.height) * height;
    p.onEdge(Math.min(depth_m, Math.max(0, (floor - at) / scale)));
  };
  const labels = placed(p.layers, x, y, depth_m, p.width);
  return (
    <svg
      ref={ref}
      viewBox={`0 0 ${p.width} ${height}`}
      className={`h-auto w-full ${p.edge ? "touch-none" : ""}`}
      aria-label={`Section, ${p.length(across_m)} wide, ${p.length(depth_m)} deep`}
      onPointerMove={drag}
    >
      <defs>
        <Patterns id={id} />
        <pattern id={`${id}-grain`} width="9" height="9" patternUnits="userSpaceOnUse">
          <circle cx="3" cy="3" r="1.1" fill="#000" opacity="0.22" />
          <circle cx="7.5" cy="7.5" r="1.1" fill="#000" opacity="0.22" />
        </pattern>
        {p.layers.map(
          (layer) =>
            layer.marble.veins.length > 0 && (
              <pattern
                key={layer.index}
                id={`${id}-marble-${layer.index}`}
                width={TILE_PX}
                height={VEIN_PX}
                patternUnits="userSpaceOnUse"
                patternTransform={layer.marble.striped ? "" : "rotate(-14)"}
              >
                <rect width={TILE_PX} height={VEIN_PX} fill={layer.tone} />
                {veinsOf(layer.marble.veins).map(({ tone, share, from }) =>
                  layer.marble.striped ? (
                    <rect
                      key={from}
                      x={from * TILE_PX}
                      width={share * TILE_PX}
                      height={VEIN_PX}
                      fill={tone}
                    />
                  ) : (
                    <path
                      key={from}
                      transform={`translate(0 ${from * VEIN_PX})`}
                      d={vein(share * VEIN_PX)}
                      fill={tone}
                    />
                  ),
                )}
              </pattern>
            ),
        )}
      </defs>
      {p.on === "sheet" && (
        <rect
          x={middle - side}
          y={floor}
          width={2 * side}
          height={Math.max(wall_m * scale, PAPER_PX)}
          fill="var(--quiet)"
        />
      )}
      {p.on === "drawing" && (
        <rect
          x={middle - side}
          y={TOP}
          width={2 * side}
          height={bottom - TOP}
          fill="var(--raised)"
          stroke="var(--line)"
        />
      )}
      {p.on === "mould" && (
        <path
          fillRule="evenodd"
          fill={`url(#${id}-mould)`}
          stroke="var(--quiet)"
          d={`M${middle - side} ${TOP}H${middle + side}V${bottom}H${middle - side}Z ${cavity}`}
        />
      )}
      <path d={cavity} fill={p.body ?? "var(--ground)"} />
      {p.layers.map((layer) => {
        const d = layer.rings.map(path).join("");
        return (
          // biome-ignore lint/a11y/useSemanticElements: an area of a drawing
          <g
            key={layer.index}
            role="button"
            tabIndex={-1}
            aria-label={layer.name}
            className="cursor-pointer"
            onPointerDown={() => p.onSelect(layer.index)}
          >
            <path
              d={d}
              fill={layer.marble.veins.length > 0 ? `url(#${id}-marble-${layer.index})` : layer.tone}
              fillRule="evenodd"
              stroke="var(--quiet)"
              strokeWidth="0.6"
            />
            {layer.grainy && <path d={d} fill={`url(#${id}-grain)`} fillRule="evenodd" />}
          </g>
        );
      })}
      {p.stick && p.body !== null && (
        <rect
          x={middle - (p.stick.diameter_m / 2) * scale}
          y={TOP - STICK_UP}
          width={p.stick.diameter_m * scale}
          height={STICK_UP + p.stick.inside_m * scale}
          rx={(p.stick.diameter_m / 2) * scale}
          fill="#cfa775"
          stroke="#8b6a3f"
        />
      )}
      {p.stick && p.body === null && (
        <rect
          x={x(open[0]) - STICK_OUT}
          y={y(depth_m / 2) - (p.stick.diameter_m / 2) * scale}
          width={p.stick.inside_m * scale + STICK_OUT}
          height={p.stick.diameter_m * scale}
          rx={(p.stick.diameter_m / 2) * scale}
          fill="#cfa775"
          stroke="#8b6a3f"
        />
      )}
      {p.layers
        .filter((layer) => layer.index === p.selected)
        .map((layer) => (
          <path
            key="chosen"
            d={layer.rings.map(path).join("")}
            fill="none"
            stroke="var(--glass)"
            strokeWidth="2.5"
            strokeDasharray="7 5"
            pointerEvents="none"
          />
        ))}
      <path
        d={cavity}
        fill="none"
        stroke={p.body === null ? "var(--glass)" : "var(--quiet)"}
        strokeWidth={p.body === null ? 2.5 : 1}
        strokeLinejoin="round"
        pointerEvents="none"
      />
      <Measure x1={x(open[0])} x2={x(open[1])} y={TOP - 18} text={p.length(open[1] - open[0])} />
      {labels.map(({ layer, lx, ly, up }) => {
        const chosen = layer.index === p.selected;
        const [ax, ay] = [x(layer.across_m), y(layer.height_m)];
        return (
          <g key={layer.index} pointerEvents="none">
            <path
              d={`M${ax} ${ay}L${lx} ${up ? ly + 24 : ly - 18}`}
              stroke={chosen ? "var(--glass)" : "var(--ink)"}
              strokeWidth="1.2"
            />
            <circle
              cx={ax}
              cy={ay}
              r="3.4"
              fill={chosen ? "var(--glass)" : "var(--ink)"}
              stroke="var(--ground)"
            />
            <text
              x={lx}
              y={ly}
              textAnchor="middle"
              fontSize="16"
              fontWeight="700"
              fill={chosen ? "var(--glass)" : "var(--ink)"}
            >
              {layer.index + 1} {layer.name}
            </text>
            <text x={lx} y={ly + 18} textAnchor="middle" fontSize="14" fill="var(--quiet)">
              {layer.note}
            </text>
          </g>
        );
      })}
      {p.edge && (
        <Edge
          {...p.edge}
          x={p.edge.level ? x(open[1]) + 20 : middle}
          left={x(open[0]) - 16}
          y={y(p.edge.height_m)}
          depth_m={depth_m}
          text={p.length(p.edge.height_m)}
          onEdge={p.onEdge}
          onGrab={(event) => ref.current?.setPointerCapture(event.pointerId)}
        />
      )}
    </svg>
  );
}

interface Label {
  layer: DrawnLayer;
  lx: number;
  ly: number;
  up: boolean;
}

/** Labels in two rows, what lies high above and the rest below, spread so that none stands on another. */
function placed(
  layers: DrawnLayer[],
  x: (a: number) => number,
  y: (z: number) => number,
  depth_m: number,
  width: number,
): Label[] {
  const rows = [true, false].map((up) =>
    layers.filter((layer) => layer.height_m > depth_m * 0.72 === up).sort((a, b) => a.across_m - b.across_m),
  );
  const bottom = y(0) + 64;
  return rows.flatMap((row, r) => {
    const room = Math.min(150, width / Math.max(row.length, 1));
    let left = 0;
    const spread = row.map((layer) => {
      const at = Math.max(x(layer.across_m), left + room / 2);
      left = at + room / 2;
      return { layer, at };
    });
    const over = Math.max(left - width, 0);
    return spread.map(({ layer, at }, i) => ({
      layer,
      lx: Math.max(at - over, room / 2 + i * room),
      ly: r === 0 ? 28 : bottom + 6,
      up: r === 0,
    }));
  });
}

function Measure({ x1, x2, y, text }: { x1: number; x2: number; y: number; text: string }) {
  return (
    <g stroke="var(--ink)" fill="none">
      <path d={`M${x1} ${y}H${x2}M${x1} ${y - 6}v22M${x2} ${y - 6}v22`} />
      <text
        x={x1 + (x2 - x1) * 0.8}
        y={y - 8}
        fontSize="15"
        fontWeight="700"
        textAnchor="middle"
        fill="var(--ink)"
        stroke="none"
      >
        {text}
      </text>
    </g>
  );
}
