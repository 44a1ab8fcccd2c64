import type { Problem } from "../../api/client";
import { capital } from "./capital";
import { inUnit, type Units } from "./units";

/** Names of fields as they stand on the screens. */
const FIELDS: Record<string, string> = {
  diameter_m: "Diameter",
  depth_m: "Depth",
  draft_rad: "Draft",
  water_kg: "Water weight",
  wall_m: "Wall",
  bears_degc: "Bears",
  cavities: "Cavities",
  count: "Cavities",
  edge_m: "Edge radius",
  corner_m: "Corner radius",
  length_m: "Length",
  width_m: "Width",
  floor_m: "Floor",
  tips: "Tips",
  inner_frac: "Notches",
  owned: "Owned",
  fill_m: "Fill level",
  fill_m3: "Fill",
  volume_m3: "Volume",
  finished_kg: "Weight",
  quantity: "Quantity",
  due_at: "Due",
  cook_degc: "Cook to",
  cook_to_degc: "Cook to",
  melt_to_degc: "Melt to",
  water_degc: "Water bath",
  air_degc: "Air",
  inside_m: "Stick in the melt",
  inside_m3: "Stick in the melt",
  confidence_frac: "Confidence",
  reserve_frac: "Reserve",
  room_degc: "Room",
  humidity_frac: "Humidity",
  altitude_m: "Altitude",
  power_w: "Power",
  thickness_m: "Thickness",
  surface_degc: "Surface",
  height_m: "Height",
  mass_kg: "Weight",
  zone: "Time zone",
  name: "Name",
  degc: "Reading",
  lines: "Lines",
  charge_kg: "Melt in the pot",
  left_kg: "Left in the pot",
  people: "People",
  pour_degc: "Poured at",
  radius_m: "Radius",
  over_s: "Within",
  water_frac: "Water left in it",
  from_s: "Then, at",
  place_id: "Place",
  path: "The way",
  stays: "The way",
  melt_kg: "Melt",
  melt_degc: "The melt is at",
  seed_degc: "The seed is at",
  added_kg: "Seed stirred in",
  read_degc: "It now reads",
  curve: "The curve",
  batch_kg: "How much",
  wanted: "Wanted colour",
  colours: "Colours at hand",
  wafer_m: "Thickness",
  sugar_kg: "Sugar",
  before: "Cooked before",
  white_frac: "White nibs",
  off_degc: "Taken off at",
  from_degc: "At first",
  to_degc: "Then",
  seconds: "Seconds",
  vessel_kg: "The bowl",
  kg: "Weight",
  seam_m: "Seam",
  bead_m: "Bead or dot",
  gap_m: "Gap",
  deep_m: "How deep",
  stripes_m: "Bag or nozzle, opening",
  strokes_count: "Strokes",
  in_row: "Under one strip",
  dots: "Dots",
  props: "Pieces the props hold",
  line_m: "Line",
  slant_rad: "Slant",
  thick_m: "Thickness",
  bore_m: "Thickness of a line",
  high_m: "Height",
  tray: "Side by side",
  inside_kg: "What is in it",
  melt_frac: "Share of melt",
  dwell_s: "Standing full",
  moulds: "Moulds it takes",
  dry_s: "A mould dries",
  join_each_s: "Put a join together",
  x_m: "Off centre",
  z_m: "Up",
  base_m: "Base",
  base_deep_m: "Base",
  foot_wide_m: "Foot",
  foot_thick_m: "Foot",
  wire_m: "Wire",
  wire_in_m: "Wire, set in",
  others: "Shares of the other melts",
  mixed_kg: "All of it",
  first_frac: "Share of the first",
  share_frac: "Share",
  level_m: "Fill level",
  ball_kg: "The ball's melt",
  vessel_id: "Pot or bowl",
  ring_id: "On or in",
  by_id: "Melted by",
  stand_id: "Stands on",
  kept_id: "Kept warm in",
  keeps_degc: "How warm it keeps",
  web_m: "Web between two",
  margin_m: "Margin",
};

const SUFFIX: [string, string][] = [
  ["_degc", "degC"],
  ["degc", "degC"],
  ["_m3", "m3"],
  ["_kg", "kg"],
  ["_rad", "rad"],
  ["_frac", "frac"],
  ["_w", "W"],
  ["_s", "s"],
  ["_m", "m"],
];

function unitOf(path: string): string {
  if (path.endsWith("altitude_m")) return "altitude";
  return SUFFIX.find(([suffix]) => path.endsWith(suffix))?.[1] ?? "count";
}

function value(si: unknown, path: string, units: Units): string {
  if (typeof si !== "number") return String(si);
  const unit = unitOf(path);
  return unit === "altitude" ? `${si} m` : inUnit(si, unit, units);
}

/** A field as it stands on the screens; a row of a list by its list and its place in it. */
export function fieldName(path: string): string {
  const keys = path.split(".");
  const last = keys.at(-1) ?? path;
  if (/^\d+$/.test(last) && keys.length > 1)
    return `${fieldName(keys.slice(0, -1).join("."))}, ${Number(last) + 1}`;
  return FIELDS[last] ?? last.replaceAll("_", " ");
}

/** What stands in a field, in the user's units. */
export function fieldValue(si: unknown, path: string, units: Units): string {
  if (si === undefined || si === null) return "none";
  if (typeof si !== "object") return value(si, path, units);
  return "name" in si && typeof si.name === "string" ? si.name : "another";
}

const PLAIN: Record<string, string> = {
  unreachable: "The app's server does not answer. Start it again: nothing you typed is lost.",
  stale: "This was changed elsewhere in the meantime. Keep yours or take the other.",
  internal: "Something went wrong in the app. Nothing was changed.",
};

const SEQUENCE: Record<string, string> = {
  caution: "Read and acknowledge the hot sugar caution first.",
};

/** What stands where an answer would: nothing can be mended while the server is away. */
export const mendWords = ({ code }: Problem): string =>
  code === "unreachable" ? "" : "Mend what is marked, then it is reckoned.";

/** A refusal in the user's words and units: what (as its field is labelled there, if that is told), the limit, what to do. */
export function wordProblem(problem: Problem, units: Units, label?: string): string {
  const plain = PLAIN[problem.code];
  if (plain) return plain;
  if (problem.code === "not_in_sequence") {
    return SEQUENCE[String(problem.params.why)] ?? `${sentence(problem.title)}`;
  }
  const { low, high } = problem.limits as { low?: number; high?: number };
  const name = label ?? fieldName(problem.path);
  if (problem.code === "mould_too_weak") {
    const need =
      low !== undefined
        ? `the pour needs ${value(low, "degc", units)}`
        : `it bears ${value(high, "degc", units)}`;
    return `This mould is not for hot sugar: it is at ${value(problem.got, "degc", units)}, ${need}. Use silicone or metal.`;
  }
  if (problem.code === "out_of_range" && (low !== undefined || high !== undefined)) {
    const got = problem.got === null ? "this" : value(problem.got, problem.path, units);
    const bounds =
      low !== undefined && high !== undefined
        ? `from ${value(low, problem.path, units)} to ${value(high, problem.path, units)}`
        : low !== undefined
          ? `at least ${value(low, problem.path, units)}`
          : `at most ${value(high, problem.path, units)}`;
    const why =
      /^[a-z]/.test(problem.title) && !problem.title.includes(" is ") ? ` ${sentence(problem.title)}` : "";
    return `${name}: ${got} cannot be. It must be ${bounds}.${why.includes("nput should") ? "" : why}`;
  }
  return problem.title.startsWith("this is ") && FIELDS[problem.path.split(".").at(-1) ?? ""]
    ? sentence(`${name}: ${problem.title}`)
    : sentence(problem.title);
}

function sentence(text: string): string {
  const first = capital(text);
  return /[.!?]$/.test(first) ? first : `${first}.`;
}
