import type { Schemas } from "../../api/client";

const IS: Record<Schemas["InIt"]["status"], string> = {
  food: "food",
  contact: "for contact only",
  non_toxic: "non-toxic, not food",
  no_contact: "not for contact",
  unknown: "not known",
};

const named = (things: Schemas["InIt"][]) =>
  things.map(({ name, status }) => `${name}: ${IS[status]}`).join("; ");

/** What of a piece may be eaten, part by part, and the text for its label. */
export function MayBeEaten({ of: { parts, label } }: { of: Schemas["Eaten"] }) {
  return (
    <section aria-label="What may be eaten">
      <h3 className="mb-2 text-lg">What may be eaten</h3>
      <ul className="border-t border-line">
        {parts.map((part, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: a part is its place in the piece
          <li key={i} className="flex flex-wrap items-baseline gap-x-4 border-b border-line py-2">
            <strong className="w-40">{part.name}</strong>
            <span className={part.eaten ? "" : "font-semibold text-heat"}>
              {part.eaten ? (part.comes_off.length > 0 ? "eaten, once it is off" : "eaten") : "not eaten"}
            </span>
            <span className="min-w-0 text-quiet">{named([...part.spoilt_by, ...part.comes_off])}</span>
          </li>
        ))}
      </ul>
      {label ? (
        <p className="mt-3 text-lg">
          For its label: <strong>{label}</strong>
        </p>
      ) : (
        <p className="mt-3 text-quiet">All of it is food, as its labels say.</p>
      )}
      <p className="mt-1 text-quiet">
        Strict: what is only called non-toxic is not food. Local rules come first.
      </p>
    </section>
  );
}
