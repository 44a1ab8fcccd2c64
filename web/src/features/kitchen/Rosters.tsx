import type { Schemas } from "../../api/client";
import { Fold } from "../../shared/ui/Fold";
import { Week } from "./Hours";

type Roster = Schemas["Roster"];
type Skill = Roster["leaves"][number];

const SKILLS: Record<Skill, string> = {
  heat: "melt and temper",
  pour: "pour",
  shape: "shape what is soft",
  unmould: "turn out",
  clean: "clean moulds",
  join: "press and join",
};

const THERE = { always: "There whenever the kitchen is open.", shut: "not there", open: "There" };

interface Props {
  people: string[];
  rosters: Roster[];
  onChange: (rosters: Roster[]) => void;
}

/** When each is there, and what each does: plans give nobody what she leaves to others. */
export function Rosters({ people, rosters, onChange }: Props) {
  const put = (next: Roster) =>
    onChange(
      [...rosters.filter((of) => of.name !== next.name), next].filter(
        (of) => people.includes(of.name) && of.hours.length + of.leaves.length > 0,
      ),
    );
  return (
    <section aria-label="Each of you">
      <h2 className="border-b border-line pb-1 text-xl">Each of you</h2>
      {people.map((name) => {
        const of = rosters.find((roster) => roster.name === name) ?? { name, hours: [], leaves: [] };
        return (
          <Fold key={name} title={name} note={rosterNote(of)}>
            <fieldset aria-label={`What ${name} does`} className="flex flex-wrap gap-x-6">
              {(Object.keys(SKILLS) as Skill[]).map((skill) => (
                <label key={skill} className="flex min-h-11 items-center gap-2">
                  <input
                    type="checkbox"
                    className="size-5 shrink-0 accent-glass"
                    checked={!of.leaves.includes(skill)}
                    onChange={(e) =>
                      put({
                        ...of,
                        leaves: e.target.checked
                          ? of.leaves.filter((left) => left !== skill)
                          : [...of.leaves, skill],
                      })
                    }
                  />
                  {SKILLS[skill]}
                </label>
              ))}
            </fieldset>
            <Week words={THERE} hours={of.hours} onChange={(hours) => put({ ...of, hours })} />
          </Fold>
        );
      })}
    </section>
  );
}

function rosterNote({ hours, leaves }: Roster): string {
  const there = hours.length === 0 ? "always there" : "at own hours";
  return leaves.length === 0
    ? `${there}, does everything`
    : `${there}; leaves to others: ${leaves.map((skill) => SKILLS[skill]).join(", ")}`;
}
