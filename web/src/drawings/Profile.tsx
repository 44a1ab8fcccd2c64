import { useId } from "react";
import type { Schemas } from "../api/client";
import { paired } from "../shared/points";
import { Patterns } from "./patterns";

interface Props {
  layers: Schemas["LayerShown"][];
  frame: Schemas["Frame"];
  /** Temperatures at the left and right edge. */
  low: number;
  high: number;
  /** Where the material's windows lie, drawn as lines. */
  marks: { degc: number; word: string }[];
  /** Share of a cell that is firm, from its temperature and share set. */
  firm: (degc: number, set: number) => number;
  word: (degc: number) => string;
  length: (si: number) => string;
  width: number;
  label: string;
}

const HEIGHT = 230;
const TOP = 20;
/** A place is far thicker than a cast: no more of it than this is drawn, against the piece. */
const PLACE_AT_MOST = 0.6;
const WORDS: Record<string, string> = { piece: "cast", under: "first", wall: "mould", place: "place" };

/** A cast cut from top to bottom, its layers to scale, with the temperature through them. */
export function Profile(p: Props) {
  const id = useId();
  const piece = p.layers.find((l) => l.name === "piece")?.thickness_m ?? 0.001;
  const drawn = p.layers.map((layer) => ({
    ...layer,
    shown_m: layer.name === "place" ? Math.min(layer.thickness_m, PLACE_AT_MOST * piece) : layer.thickness_m,
  }));
  const scale = (HEIGHT - TOP - 26) / drawn.reduce((sum, layer) => sum + layer.shown_m, 0);
  const x = (degc: number) =>
    ((Math.min(Math.max(degc, p.low), p.high) - p.low) / (p.high - p.low)) * (p.width - 2);
  const cells = paired(p.frame.temps, p.frame.set);
  let top = TOP;
  let cell = 0;
  const boxes = drawn.map((layer) => {
    const box = {
      layer,
      y: top,
      height: layer.shown_m * scale,
      cells: cells.slice(cell, cell + layer.cells).map(([degc, set], i) => ({
        degc,
        set,
        y: top + ((i + 0.5) * layer.thickness_m * scale) / layer.cells,
        height: (layer.thickness_m * scale) / layer.cells,
      })),
    };
    top += box.height;
    cell += layer.cells;
    return box;
  });
  const bottom = top;
  const points = boxes.flatMap((box) => box.cells).filter((c) => c.y <= bottom);
  const cast = boxes.find((box) => box.layer.name === "piece")?.cells.map((c) => c.degc) ?? [];
  return (
    <svg width={p.width} height={HEIGHT} role="img" aria-label={p.label} className="block">
      <defs>
        <Patterns id={id} />
      </defs>
      {boxes.map((box) => (
        <g key={box.layer.name}>
          {box.layer.name === "piece" || box.layer.name === "under" ? (
            box.cells.map((c) => (
              <g key={c.y}>
                <rect
                  x="0"
                  y={c.y - c.height / 2}
                  width={p.width}
                  height={c.height + 0.5}
                  fill="var(--melt)"
                />
                <rect
                  x="0"
                  y={c.y - c.height / 2}
                  width={p.width}
                  height={c.height + 0.5}
                  fill="#5a3a2a"
                  opacity={Math.min(Math.max(p.firm(c.degc, c.set), 0), 1)}
                />
              </g>
            ))
          ) : (
            <rect
              x="0"
              y={box.y}
              width={p.width}
              height={box.height}
              fill={box.layer.name === "wall" ? `url(#${id}-mould)` : "var(--raised)"}
            />
          )}
          <line x1="0" x2={p.width} y1={box.y} y2={box.y} stroke="var(--ink)" strokeWidth="1" />
          {box.height > 15 && (
            <Outlined x={p.width - 6} y={box.y + box.height - 5} anchor="end">
              {`${WORDS[box.layer.name] ?? box.layer.name}, ${p.length(box.layer.thickness_m)}`}
            </Outlined>
          )}
        </g>
      ))}
      <line x1="0" x2={p.width} y1={bottom} y2={bottom} stroke="var(--ink)" />
      {p.marks
        .filter((mark) => mark.degc > p.low && mark.degc < p.high)
        .map((mark) => (
          <g key={mark.word}>
            <line
              x1={x(mark.degc)}
              x2={x(mark.degc)}
              y1={TOP}
              y2={bottom}
              stroke="var(--glass)"
              strokeWidth="2"
              strokeDasharray="5 4"
            />
            <text x={x(mark.degc)} y={bottom + 17} textAnchor="middle" fontSize="13" fill="var(--quiet)">
              {mark.word}
            </text>
          </g>
        ))}
      <polyline
        points={points.map((c) => `${x(c.degc).toFixed(1)},${c.y.toFixed(1)}`).join(" ")}
        fill="none"
        stroke="var(--ground)"
        strokeWidth="6"
        strokeLinejoin="round"
      />
      <polyline
        points={points.map((c) => `${x(c.degc).toFixed(1)},${c.y.toFixed(1)}`).join(" ")}
        fill="none"
        stroke="var(--heat)"
        strokeWidth="3"
        strokeLinejoin="round"
      />
      <text x="2" y={TOP - 6} fontSize="14" fill="var(--ink)" fontWeight="700">
        {cast.length > 0 ? `hottest ${p.word(Math.max(...cast))}, coldest ${p.word(Math.min(...cast))}` : ""}
      </text>
    </svg>
  );
}

function Outlined({ x, y, anchor, children }: { x: number; y: number; anchor: "end"; children: string }) {
  return (
    <text
      x={x}
      y={y}
      textAnchor={anchor}
      fontSize="13"
      fill="var(--ink)"
      stroke="var(--ground)"
      strokeWidth="4"
      strokeOpacity="0.75"
      paintOrder="stroke"
    >
      {children}
    </text>
  );
}
