import type { Schemas } from "../../api/client";
import { Button } from "../../shared/ui/plain";

type Covered = NonNullable<Schemas["PassRow"]["covering"]>;

/** How a thin coloured layer looks over what is behind it, and whether white between them helps. */
export function Covering({
  of,
  onWhite,
}: {
  of: Covered;
  onWhite: (white: NonNullable<Covered["white"]>) => void;
}) {
  const { white } = of;
  return (
    <section aria-label="Over what is behind it" className="space-y-3">
      <div className="flex flex-wrap gap-4">
        <Patch colour={of.wanted} name="its own colour" />
        <Patch colour={of.seen} name="over what is behind it" />
        {white && <Patch colour={of.with_white} name="white behind it" />}
      </div>
      {white ? (
        <>
          <p>So thin it lets what is behind it through. White behind it brings its colour back.</p>
          <Button kind="quiet" onClick={() => onWhite(white)}>
            Put white behind it
          </Button>
        </>
      ) : (
        <p className="text-quiet">It needs no white behind it.</p>
      )}
    </section>
  );
}

function Patch({ colour, name }: { colour: string; name: string }) {
  return (
    <div className="w-24 text-sm text-quiet">
      <div aria-hidden className="mb-1 h-14 border border-line" style={{ background: colour }} />
      {name}
    </div>
  );
}
