import type { Schemas } from "../../api/client";
import { amount, daysWords, duration, type Units } from "../../shared/format/units";
import { TASK_WORDS } from "../../shared/laneWords";
import { wholeName } from "../../shared/named";

type Remark = Schemas["Summary"]["warnings"][number];
type Work = Extract<Remark, { code: "one_by_one" }>["work"];

const ONE_BY_ONE: Record<Work, string> = {
  bend: "not even one may be safely poured and bent in time. Pour and bend one by one, warmer.",
  stick:
    "not even one takes its stick for sure before it is too stiff. Pour and put in sticks one by one, warmer.",
  film: "not even one surely takes its film before it is too firm. Pour fewer at once, warmer.",
  drag: "not even one is surely dragged through before it is too firm. Pour fewer at once, warmer.",
  comb: "not even one is surely combed before it is too firm. Pour fewer at once, warmer.",
  groove: "not even one is surely leathery long enough to be grooved. Pour and groove them one by one.",
  cut: "not even one piece of the sheet is surely cut before it is too firm. Pour smaller sheets, warmer.",
  shape: "not even one is surely bent with its film before it is too firm. Pour fewer at once, warmer.",
  sprinkle: "not even one surely gets what goes on it while it is wet. Pour and put it on one by one.",
};

const NOT_FOOD: Record<Extract<Remark, { code: "not_food" }>["status"], string> = {
  food: "food",
  contact: "for contact only",
  non_toxic: "non-toxic, which is not food",
  no_contact: "not for contact with food",
  unknown: "of unknown status, so not food",
};

/** What the plan has to say, in words. */
export function remarkWords(remark: Remark, units: Units, places: Record<string, string>): string {
  switch (remark.code) {
    case "due_in_past":
      return `The due time passed ${duration(remark.late_s)} ago. Choose one that is still to come.`;
    case "too_late":
      return `Too late to be ready in time: it takes ${duration(remark.needs_s)} and ${duration(remark.has_s)} are left. Cast fewer, use more moulds, or move the due time.`;
    case "window_never":
      return `${wholeName(remark.named)}: the bubbles do not rise out of ${amount(remark.depth_m, "length", units)} of melt before it is too thick to pour. Use a wider or heavier pot, or cook less at once.`;
    case "window_narrow":
      if (remark.low_s < 1)
        return `${wholeName(remark.named)}: at worst the bubbles are not out before it is too thick to pour. A reading on the way decides; a wider or heavier pot is surer.`;
      return `${wholeName(remark.named)}: the pour window may be as short as ${duration(remark.low_s)}. Take a reading on the way: it decides.`;
    case "easily_lost":
      return `${wholeName(remark.named)}: “${TASK_WORDS[remark.kind]}” is in time on ${daysWords(remark.kept_frac)} only, with ${duration(remark.room_s)} to spare. Pour fewer at once, or have a second pair of hands beside you.`;
    case "pot_too_small":
      return `${amount(remark.charge_kg, "mass", units)} of melt: this vessel holds ${amount(remark.holds_kg, "mass", units)}, since sugar foams and fat is stirred. Use a larger one.`;
    case "not_kept":
      return `${wholeName(remark.named)}: its melt is not kept in “${places[remark.keeper] ?? "the warm"}”, it stands and cools. ${notKept(remark, units)}`;
    case "shelf_small":
      return `${places[remark.place] ?? "A place"} takes ${remark.has} moulds, and one filling alone brings ${remark.needs} there. Set some elsewhere, or pour fewer at once.`;
    case "never_sets":
      return `${wholeName(remark.named)}: it does not set where its mould lies. Sugar: cook hotter, since its water keeps it soft; coating: a colder place.`;
    case "not_eaten":
      return `${wholeName(remark.named)}: ${remark.film} is not made for food. Decoration only, not to be eaten: say so to whoever gets it, or take a film that is.`;
    case "not_food":
      return `${wholeName(remark.named)}: ${remark.thing} is ${NOT_FOOD[remark.status]}. It comes off before this is eaten: say so to whoever gets it, or take something that is food.`;
    case "weak_spirit":
      return `${wholeName(remark.named)}: a spirit of ${amount(remark.alcohol_frac, "share", units)} alcohol takes about ${duration(remark.dries_s)} to dry; its water draws into the face and lifts what is under it. Take one of ${amount(remark.least_frac, "share", units)} or more, or lemon extract, or go thin and wait.`;
    case "stripes_apart":
      return `${wholeName(remark.named)}: the stripes take ${duration(remark.takes_s)}, the first run together with the last for ${duration(remark.runs_s)} only. Pipe out of a wider opening, or smaller sheets.`;
    case "falls_apart":
      return `${wholeName(remark.named)}: lifted off, it falls into ${remark.parts} parts. Join its lines in the drawing first.`;
    case "breaks_easily":
      return `${wholeName(remark.named)}: about ${amount(remark.breaks_frac, "share", units)} break as they are lifted, by what its lines span (assumed strength). Look at the drawing: more joins, a frame or a second line on the weak ones.`;
    case "bag_stiffens":
      return `${wholeName(remark.named)}: the lines take ${duration(remark.takes_s)}, a bag of melt flows for ${duration(remark.flows_s)} in the hand. Fill ${remark.bags} small bags one after the other, the rest stays warm in its vessel.`;
    case "one_by_one":
      return `${wholeName(remark.named)}: ${ONE_BY_ONE[remark.work]}`;
    case "thin_to_leave":
      return `${wholeName(remark.named)}: ${amount(remark.thick_m, "length", units)} is thin for leaving this mould whole; about ${amount(remark.least_m, "length", units)} survives, by what it spans (assumed strength).`;
    case "chills_first":
      return `${wholeName(remark.named)}: in this cold its skin may be over-chilled and crack before all of it has let go. A fridge is slower and safer.`;
    case "sticky_room":
      return `At ${amount(remark.humidity_frac, "share", units)} humidity pieces may turn sticky (from about ${amount(remark.from_frac, "share", units)} in this room, by an assumed uptake of water). Box them with drying agent as soon as they are cold.`;
  }
}

/** Why a melt stands and cools that was to be kept warm. */
function notKept({ why, ...of }: Extract<Remark, { code: "not_kept" }>, units: Units): string {
  const [stays, most] = [of.settles_degc, of.most_degc].map((degc) => amount(degc, "temperature", units));
  switch (why) {
    case "full":
      return "No room is left there.";
    case "cool":
      return `It would come down to ${stays} there, and set no later.`;
    case "warm":
      return `It would stay at ${stays} there, and may be ${most} at most.`;
  }
}
