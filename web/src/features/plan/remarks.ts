import type { Schemas } from "../../api/client";
import { amount, duration, type Units } from "../../shared/format/units";

/** What the plan has to say, in words. */
export function remarkWords(
  remark: Schemas["Remark"],
  units: Units,
  places: Record<string, string> = {},
): string {
  const p = remark.params as Record<string, number>;
  const cook = `Cook ${(p.cook ?? 0) + 1}`;
  const round = `Round ${(p.round ?? 0) + 1}`;
  switch (remark.code) {
    case "due_in_past":
      return `The due time passed ${duration(p.late_s ?? 0)} ago. Choose one that is still to come.`;
    case "too_late":
      return `Too late to be ready in time: it takes ${duration(p.needs_s ?? 0)} and ${duration(p.has_s ?? 0)} are left. Cast fewer, use more moulds, or move the due time.`;
    case "window_never":
      return `${cook}: the bubbles do not rise out of ${amount(p.depth_m ?? 0, "length", units)} of melt before it is too thick to pour. Use a wider or heavier pot, or cook less at once.`;
    case "window_narrow":
      if ((p.low_s ?? 0) < 1)
        return `${cook}: at worst the bubbles are not out before it is too thick to pour. A reading on the way decides; a wider or heavier pot is surer.`;
      return `${cook}: the pour window may be as short as ${duration(p.low_s ?? 0)}. Take a reading on the way: it decides.`;
    case "pot_too_small":
      return `${amount(p.charge_kg ?? 0, "mass", units)} of melt: this vessel holds ${amount(p.holds_kg ?? 0, "mass", units)}, since sugar foams and fat is stirred. Use a larger one.`;
    case "shelf_small":
      return `${places[String(remark.params.place)] ?? "A place"} takes ${p.has} moulds, and one melt alone brings ${p.needs} there. Set some elsewhere, or pour fewer at once.`;
    case "never_sets":
      return `${round}: it does not set where its mould lies. Sugar: cook hotter, since its water keeps it soft; coating: a colder place.`;
    case "bend_one_by_one":
      return `${round}: not even one may be safely poured and bent in time. Pour and bend one by one, warmer.`;
    case "stick_one_by_one":
      return `${round}: not even one takes its stick for sure before it is too stiff. Pour and put in sticks one by one, warmer.`;
    case "thin_to_leave":
      return `${round}: ${amount(p.thick_m ?? 0, "length", units)} is thin for leaving this mould whole; about ${amount(p.least_m ?? 0, "length", units)} survives, by what it spans (assumed strength).`;
    case "chills_first":
      return `${round}: in this cold its skin may be over-chilled and crack before all of it has let go. A fridge is slower and safer.`;
    case "sticky_room":
      return `At ${amount(p.humidity_frac ?? 0, "share", units)} humidity pieces may turn sticky (from about ${amount(p.from_frac ?? 0, "share", units)} in this room, by an assumed uptake of water). Box them with drying agent as soon as they are cold.`;
    default:
      return remark.code;
  }
}
