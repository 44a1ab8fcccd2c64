import type { Schemas } from "../../api/client";
import { isOf } from "../../shared/moulds";
import { meltTone, toneOf } from "../../shared/tones";
import { PASSES, WAYS } from "./passWords";

export type Part = Schemas["Part"];
export type Pass = Part["passes"][number];
export type Kind = Pass["kind"];
export type Of<K extends Kind> = Extract<Pass, { kind: K }>;
export type KindShown = Schemas["PassKindShown"];
export type Way = NonNullable<KindShown["ways"][number]>;

/** What a part is to its passes: a hollow that is filled, a drawing, a body, or nothing but hands. */
export function groundOf(part: Part, mould: Schemas["Mould"] | undefined): KindShown["on"][number] {
  if (part.body) return "body";
  if (part.mould_id === null) return "hand";
  return isOf(mould, part.cavity) === "drawing" ? "drawing" : "mould";
}

/** What covers less of a part does not give it its tone. */
const HALF = 0.5;

/** The tone of a part: of what it is made of last. */
export function partTone(part: Part): string {
  const over = part.passes.filter((pass) => !("dust" in pass) || pass.share_frac > HALF);
  const [last] = over.flatMap((pass) => passTone(pass) ?? []).reverse();
  return last ?? "var(--raised)";
}

/** What a kind is offered as, laid as usual or in a way of its own. */
export const offeredAs = (kind: Kind, way: Way | null): string =>
  way === null ? PASSES[kind].name : WAYS[way];

const RIBBONS: Record<Of<"ribbon">["laid"], string> = {
  flat: "Ribbon",
  ruffle: "Ruffle",
  pleats: "Pleated ribbon",
  bow: "Bow",
};

/** What a pass is called on the screens. */
export function passName(pass: Pass): string {
  if ("name" in pass) return pass.name;
  switch (pass.kind) {
    case "filling":
      return `${PASSES.filling.fields.filling.of[pass.filling]} filling`;
    case "paste":
      return PASSES.paste.fields.paste.of[pass.paste];
    case "shell":
      return pass.others.length > 0 ? "Marbled shell" : pass.sides ? "Second coat, sides" : PASSES.shell.name;
    case "stick":
      return pass.use === "hole" ? "Skewer hole" : PASSES.stick.name;
    case "fill":
      return pass.others.length === 0
        ? PASSES.fill.name
        : pass.stripes_m === null
          ? "Marbled fill"
          : "Stripes";
    case "ribbon":
      return RIBBONS[pass.laid];
    case "comb":
      return pass.how === "drag" ? "Dragged through" : "Combed";
    case "dip":
      return pass.others.length > 0 ? "Marbled dip" : pass.line_m === null ? "Dip" : "Dip to a line";
    default:
      return PASSES[pass.kind].name;
  }
}

/** The tone a pass is drawn in; none of what has no area in a cut. */
export function passTone(pass: Pass): string | null {
  if ("melt" in pass) return meltTone(pass.melt);
  if ("dust" in pass) return pass.colour ?? toneOf(pass.dust);
  if ("paste" in pass) return pass.colour ?? toneOf(pass.paste);
  return "filling" in pass ? toneOf(pass.filling) : null;
}

/** A field of a pass, a body or a join by its name. */
export const fieldOf = (of: object, field: string): unknown =>
  Object.entries(of).find(([k]) => k === field)?.[1];

export type Join = Schemas["Join"];
export type Body = NonNullable<Part["body"]>;

/** What a part is poured or piped of last. */
export function lastMelt(part: Part): Schemas["MeltRef"] {
  const melts = part.passes.flatMap((pass) => ("melt" in pass ? [pass.melt] : []));
  return melts.at(-1) ?? { material: "coating", colour: null };
}
