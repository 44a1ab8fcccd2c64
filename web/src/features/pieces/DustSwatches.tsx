import type { Schemas } from "../../api/client";

type Of = NonNullable<Schemas["PassRow"]["swatches"]>;

const TILTS = ["to the light", "aside", "far from it"];

/** How a dust looks on what it lies on, and on a base of its own colour, tilted. */
export function DustSwatches({ of }: { of: Of }) {
  return (
    <section aria-label="How it looks" className="space-y-3">
      <Row name="on this base" bare={of.bare} colours={of.here} />
      <Row name="on a base of its own colour" colours={of.matching} />
      {of.swallowed ? (
        <p>This base dulls it. A coat in a colour near the dust's own, under it, brings it out.</p>
      ) : (
        <p className="text-quiet">This base suits it.</p>
      )}
    </section>
  );
}

function Row({ name, bare, colours }: { name: string; bare?: string; colours: string[] }) {
  return (
    <figure>
      <figcaption className="mb-1 text-sm text-quiet">{name}</figcaption>
      <div className="flex gap-1">
        {bare && <Patch colour={bare} name="bare" />}
        {colours.map((colour, i) => (
          <Patch key={TILTS[i]} colour={colour} name={TILTS[i] ?? ""} />
        ))}
      </div>
    </figure>
  );
}

function Patch({ colour, name }: { colour: string; name: string }) {
  return (
    <div className="w-16 text-xs text-quiet">
      <div aria-hidden className="mb-0.5 h-12 border border-line" style={{ background: colour }} />
      {name}
    </div>
  );
}
