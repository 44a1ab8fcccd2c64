import type { ReactNode } from "react";
import type { Schemas } from "../../api/client";
import type { Ask } from "../../shared/ask";
import type { Quantity } from "../../shared/format/units";
import { NumberInline, PickInline } from "./Inline";

/** What a question's things are called here. */
export interface Names {
  kitchen: Schemas["Kitchen"];
  melts: Schemas["MaterialShown"][];
  pieces: Schemas["StoredPiece"][];
  moulds: Schemas["MaterialShown"][];
}

type Patch = Record<string, string | number | null>;

interface Props {
  asked: Ask;
  names: Names;
  onChange: (patch: Patch) => void;
}

const SHAPES = [
  { key: "disc", name: "discs" },
  { key: "heart", name: "hearts" },
  { key: "star", name: "stars" },
  { key: "bar", name: "bars" },
  { key: "half_ball", name: "half balls" },
];
const DOINGS = [
  { key: "pour", name: "poured" },
  { key: "pipe", name: "piped" },
  { key: "dip", name: "dipped into" },
  { key: "bend", name: "bent" },
];

/** A question as one sentence: what is told or assumed stands in it, and is changed where it stands. */
export function Sentence({ asked, names, onChange }: Props) {
  const rows = (of: { key: string; name: string }[]) =>
    of.map(({ key, name }) => ({ key, name: name.toLowerCase() }));
  const pieces = names.pieces.map(({ id, doc }) => ({ key: id, name: doc.name.toLowerCase() }));
  const places = names.kitchen.places.map(({ id, name }) => ({ key: id, name: name.toLowerCase() }));
  const number = (name: string, label: string, quantity: Quantity, value: number | null, step: number) => (
    <NumberInline
      label={label}
      quantity={quantity}
      value={value}
      step={step}
      onChange={(v) => onChange({ [name]: v })}
    />
  );
  const pick = (
    name: string,
    label: string,
    value: string | null,
    options: { key: string; name: string }[],
  ) => <PickInline label={label} value={value} options={options} onChange={(v) => onChange({ [name]: v })} />;
  const of = (material: string | null, melts = names.melts) => pick("material", "Of", material, rows(melts));
  return <p className="text-xl leading-[2.6rem]">{words()}</p>;

  function words(): ReactNode {
    switch (asked.question) {
      case "unmould":
        return (
          <>
            A {number("thickness_m", "Thickness", "length", asked.thickness_m, 0.5)} cast of{" "}
            {of(asked.material)} in {pick("mould", "Mould", asked.mould, rows(names.moulds))}, into the{" "}
            {pick("place_id", "Place", asked.place_id, places)}
          </>
        );
      case "how_much":
        return (
          <>
            For {number("quantity", "How many", "count", asked.quantity, 1)}{" "}
            <PickInline
              label="Of what"
              value={asked.piece_id ?? asked.shape}
              options={[...SHAPES, ...pieces]}
              onChange={(key) =>
                onChange(
                  pieces.some((piece) => piece.key === key)
                    ? { piece_id: key, shape: null, across_m: null, thickness_m: null, material: null }
                    : { piece_id: null, shape: key },
                )
              }
            />
            {asked.piece_id === null && (
              <>
                , {number("across_m", "Across", "length", asked.across_m, 1)} across and{" "}
                {number("thickness_m", "Thickness", "length", asked.thickness_m, 0.5)} thick, of{" "}
                {of(asked.material)}
              </>
            )}
          </>
        );
      case "still":
        return (
          <>
            May {of(asked.material)} at {number("degc", "Reading", "temperature", asked.degc, 1)} still be{" "}
            {pick("doing", "What you do", asked.doing, DOINGS)}
            {asked.doing === "bend" ? (
              <>, {number("thickness_m", "Thickness", "length", asked.thickness_m, 0.5)} thick?</>
            ) : (
              <>, {number("kg", "How much is in it", "mass", asked.kg, 10)} of it?</>
            )}
          </>
        );
      case "heat":
        return (
          <>
            {number("kg", "How much", "mass", asked.kg, 10)} of {of(asked.material)}, to be melted or cooked
          </>
        );
      case "seed":
        return (
          <>
            {number("kg", "How much", "mass", asked.kg, 10)} of{" "}
            {of(
              asked.material,
              names.melts.filter((melt) => melt.family?.tempers),
            )}
            , tempered by seed
          </>
        );
      case "colour":
        return (
          <>
            {number("kg", "How much", "mass", asked.kg, 10)} of {of(asked.material)} to look{" "}
            <input
              type="color"
              aria-label="Wanted colour"
              className="h-9 w-14 self-center"
              value={asked.wanted ?? "#3f7fd0"}
              onChange={(event) => onChange({ wanted: event.target.value })}
            />{" "}
            when it is {number("thickness_m", "Thickness", "length", asked.thickness_m, 0.5)} thick
          </>
        );
      case "keeps":
        return (
          <>
            {of(asked.material)}, {number("thickness_m", "Thickness", "length", asked.thickness_m, 0.5)}{" "}
            thick, out of the {pick("place_id", "Place", asked.place_id, places)} into this room
          </>
        );
      case "stands":
        return (
          <>
            {pick(
              "piece_id",
              "Piece",
              asked.piece_id,
              names.pieces
                .filter(({ doc }) => doc.stand)
                .map(({ id, doc }) => ({ key: id, name: doc.name.toLowerCase() })),
            )}{" "}
            on its foot
          </>
        );
    }
  }
}
