import type { Schemas } from "../../api/client";
import { amount, range } from "../../shared/format/units";
import { useUnits } from "../../shared/format/useUnits";
import { Choice, Pick } from "../../shared/ui/controls";
import { NumberField } from "../../shared/ui/NumberField";
import { Notice } from "../../shared/ui/plain";

type CookedWay = Schemas["CookedWay"];
type MeltedWay = Schemas["MeltedWay"];
type TemperedWay = Schemas["TemperedWay"];
export type Way = Schemas["Ways"]["ways"][string];

/** What its materials say of a family: how it is called, and how hot it gets [degC]. */
export interface FamilyOf {
  key: string;
  name: string;
  nibs: boolean;
  wet: boolean;
  heated_to: Schemas["HeatedTo"] | null;
}

interface Props<W extends Way> {
  way: W;
  family: FamilyOf;
  kitchen: Schemas["Kitchen"];
  onChange: (way: W) => void;
  wrong: (path: string) => string | undefined;
}

const named = (rows: { id: string; name: string }[]) => rows.map((row) => ({ key: row.id, name: row.name }));

const NOWHERE = "";

/** What may keep a vessel warm, or nothing. */
const keepers = ({ warmers }: Schemas["Kitchen"]) => [
  { key: NOWHERE, name: "Nowhere, it cools" },
  ...warmers.map(({ id, name, vessels }) => ({ key: id, name: `${name} (takes ${vessels})` })),
];

/** Whether the colours of a melt are melted each by itself, or divided off one pot. */
function ItsColours({ divided, onChange }: { divided: boolean; onChange: (divided: boolean) => void }) {
  return (
    <Choice
      label="Its colours"
      value={divided ? "divided" : "each"}
      options={[
        { key: "each", name: "each by itself" },
        { key: "divided", name: "off one pot" },
      ]}
      onChange={(key) => onChange(key === "divided")}
    />
  );
}

/** How a sugar of this order is cooked, and where its moulds lie. */
function CookedInputs({ way, family, kitchen, onChange, wrong }: Props<CookedWay>) {
  const units = useUnits();
  const change = (patch: Partial<CookedWay>) => onChange({ ...way, ...patch });
  return (
    <>
      <NumberField
        label="Cook to"
        quantity="temperature"
        value={way.cook_degc}
        onChange={(cook_degc) => change({ cook_degc })}
        error={wrong("cook_degc")}
        {...(family.heated_to ? { slider: family.heated_to } : {})}
        hint={
          family.heated_to
            ? `usually ${range(family.heated_to.usual, "degC", units)}${family.nibs ? "; hotter comes out clearer (less water, fewer bubbles), and browner only far above" : ""}`
            : undefined
        }
      />
      {family.nibs && (
        <Choice
          label="As bought"
          value={way.crystalline ? "crystals" : "nibs"}
          options={[
            { key: "crystals", name: "granules" },
            { key: "nibs", name: "ready-cooked nibs" },
          ]}
          onChange={(key) => change({ crystalline: key === "crystals" })}
        />
      )}
      {family.wet && (
        <Choice
          label="Water"
          value={way.water}
          options={[
            { key: "auto", name: "by size" },
            { key: "dry", name: "none" },
            { key: "wet", name: "with water" },
          ]}
          onChange={(water) => change({ water })}
        />
      )}
      <Pick
        label="Pot"
        value={way.vessel_id}
        options={named(kitchen.vessels)}
        onChange={(vessel_id) => change({ vessel_id })}
      />
      <Pick
        label="On or in"
        value={way.ring_id}
        options={named([...kitchen.rings, ...(family.nibs ? kitchen.microwaves : [])])}
        onChange={(ring_id) => change({ ring_id })}
      />
      <ItsColours divided={way.divided} onChange={(divided) => change({ divided })} />
      <Pick
        label="Pot rests on"
        value={way.stand_id}
        options={named(kitchen.places)}
        onChange={(stand_id) => change({ stand_id })}
      />
      <Pick
        label="Kept warm between pours"
        value={way.kept_id ?? NOWHERE}
        options={keepers(kitchen)}
        onChange={(kept) => change({ kept_id: kept === NOWHERE ? null : kept })}
      />
      <Pick
        label="Moulds lie on"
        value={way.place_id}
        options={named(kitchen.places)}
        onChange={(place_id) => change({ place_id })}
      />
    </>
  );
}

const POWERS = [
  { key: "full", name: "Full" },
  { key: "half", name: "Half" },
];
const STOPS = [
  { key: "lumps", name: "With a few lumps, stirred out" },
  { key: "through", name: "Melted through" },
];

/** How a coating of this order is melted, where it is poured, and where it sets. */
function MeltedInputs({ way, family, kitchen, onChange, wrong }: Props<MeltedWay>) {
  const units = useUnits();
  const change = (patch: Partial<MeltedWay>) => onChange({ ...way, ...patch });
  const { heated_to } = family;
  return (
    <>
      <NumberField
        label="Melt to"
        quantity="temperature"
        value={way.melt_to_degc}
        onChange={(melt_to_degc) => change({ melt_to_degc })}
        error={wrong("melt_to_degc")}
        {...(heated_to ? { slider: heated_to } : {})}
        hint={
          heated_to
            ? `${range(heated_to.usual, "degC", units)}; never over ${amount(heated_to.high, "temperature", units)}`
            : undefined
        }
      />
      <Pick
        label="Melted by"
        value={way.by_id}
        options={named([...kitchen.microwaves, ...kitchen.baths])}
        onChange={(by_id) => change({ by_id })}
      />
      {kitchen.microwaves.some((oven) => oven.id === way.by_id) && (
        <>
          <Pick
            label="Power"
            value={way.power}
            options={POWERS}
            onChange={(power) => change({ power: power as typeof way.power })}
          />
          <Pick
            label="Take it out"
            value={way.stop}
            options={STOPS}
            onChange={(stop) => change({ stop: stop as typeof way.stop })}
          />
        </>
      )}
      <Pick
        label="Bowl"
        value={way.vessel_id}
        options={named(kitchen.vessels)}
        onChange={(vessel_id) => change({ vessel_id })}
      />
      <ItsColours divided={way.divided} onChange={(divided) => change({ divided })} />
      <Pick
        label="Bowl and moulds stand on, to pour"
        value={way.stand_id}
        options={named(kitchen.places)}
        onChange={(stand_id) => change({ stand_id })}
      />
      <Pick
        label="Kept warm between pours"
        value={way.kept_id ?? NOWHERE}
        options={keepers(kitchen)}
        onChange={(kept) => change({ kept_id: kept === NOWHERE ? null : kept })}
      />
      <Pick
        label="Sets in"
        value={way.place_id}
        options={named(kitchen.places)}
        onChange={(place_id) => change({ place_id })}
      />
    </>
  );
}

const SCHOOLS = [
  { key: "seed", name: "Seed" },
  { key: "powder", name: "Cocoa-butter powder" },
  { key: "slab", name: "On a slab" },
  { key: "bowls", name: "Cold and warm bowl" },
  { key: "keep", name: "Keep its own temper, warmed gently" },
  { key: "none", name: "No temper, chilled hard" },
];

/** How couvertures of this order are melted and tempered, where they are poured and set. */
function TemperedInputs({ way, kitchen, onChange, wrong }: Props<TemperedWay>) {
  const change = (patch: Partial<TemperedWay>) => onChange({ ...way, ...patch });
  return (
    <>
      <Pick
        label="Tempered by"
        value={way.school}
        options={SCHOOLS}
        onChange={(school) => change({ school: school as typeof way.school })}
      />
      {way.school === "none" ? (
        <Notice tone="hot">
          For a decoration on film, eaten soon: it does not shrink, so no rigid mould lets go of it, and it
          blooms.
        </Notice>
      ) : (
        ["seed", "slab", "bowls"].includes(way.school) && (
          <NumberField
            label={
              way.school === "seed"
                ? "The seed is at"
                : way.school === "slab"
                  ? "The slab is at"
                  : "The water is at"
            }
            quantity="temperature"
            value={way.seed_degc}
            onChange={(seed_degc) => change({ seed_degc })}
            error={wrong("seed_degc")}
            step={1}
          />
        )
      )}
      <Pick
        label="Melted by"
        value={way.by_id}
        options={named([...kitchen.microwaves, ...kitchen.baths])}
        onChange={(by_id) => change({ by_id })}
      />
      {kitchen.microwaves.some((oven) => oven.id === way.by_id) && (
        <Pick
          label="Power"
          value={way.power}
          options={POWERS}
          onChange={(power) => change({ power: power as typeof way.power })}
        />
      )}
      <Pick
        label="Bowl"
        value={way.vessel_id}
        options={named(kitchen.vessels)}
        onChange={(vessel_id) => change({ vessel_id })}
      />
      <Pick
        label="Bowl and moulds stand on, to pour"
        value={way.stand_id}
        options={named(kitchen.places)}
        onChange={(stand_id) => change({ stand_id })}
      />
      <Pick
        label="Kept warm between pours"
        value={way.kept_id ?? NOWHERE}
        options={keepers(kitchen)}
        onChange={(kept) => change({ kept_id: kept === NOWHERE ? null : kept })}
      />
      <Pick
        label="Sets in"
        value={way.place_id}
        options={named(kitchen.places)}
        onChange={(place_id) => change({ place_id })}
      />
    </>
  );
}

/** How this order makes the melts of a family. */
export function WayInputs(p: Props<Way>) {
  switch (p.way.kind) {
    case "cooked":
      return <CookedInputs {...p} way={p.way} />;
    case "melted":
      return <MeltedInputs {...p} way={p.way} />;
    case "tempered":
      return <TemperedInputs {...p} way={p.way} />;
  }
}

const TITLES: Record<Way["kind"], string> = {
  cooked: "Cook the",
  melted: "Melt the",
  tempered: "Melt and temper the",
};

export const wayTitle = (way: Way, family: string) => `${TITLES[way.kind]} ${family}`;

/** How a family is made in a word: in what, by what, and where it sets. */
export function wayNote(way: Way, kitchen: Schemas["Kitchen"]): string {
  const by = way.kind === "cooked" ? way.ring_id : way.by_id;
  const things = [...kitchen.vessels, ...kitchen.rings, ...kitchen.microwaves, ...kitchen.baths];
  const [vessel, heater] = [way.vessel_id, by].map((id) => things.find((of) => of.id === id)?.name);
  const place = kitchen.places.find((of) => of.id === way.place_id)?.name;
  return [vessel, heater, place && `sets in ${place}`].filter(Boolean).join(", ").toLowerCase();
}
