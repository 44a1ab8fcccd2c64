import { type ReactNode, useState } from "react";
import { Link } from "react-router";
import type { MadeKind } from "../../api/things";
import { InTurn } from "./InTurn";
import { PutBack } from "./PutBack";
import { Button } from "./plain";

interface Item {
  id: string;
  name: string;
  note: string;
}

/** So many are shown at first: more than these are looked for by name. */
const FIRST_SHOWN = 60;

interface Props {
  title: string;
  base: string;
  items: Item[];
  /** The one whose address this is; none: the list. */
  open: string | undefined;
  /** What is put back here, if it was removed last. */
  kind?: MadeKind;
  add?: { word: string; onAdd: () => void } | undefined;
  empty: string;
  children: ReactNode;
}

/** A list of things; one of them opens in its place, with a way back. */
export function ListPage({ title, base, items, open, kind, add, empty, children }: Props) {
  if (open !== undefined)
    return (
      <>
        <Link
          to={base}
          className="mx-7 mt-1 inline-flex min-h-13 items-center gap-2 font-bold text-glass hover:underline"
        >
          <span aria-hidden>‹</span>
          {title}
        </Link>
        {items.some((item) => item.id === open) ? (
          <InTurn>{children}</InTurn>
        ) : (
          <p className="px-7 py-4 text-xl">This one is not here any more.</p>
        )}
      </>
    );
  return (
    <div className="px-7 py-6">
      <div className="flex flex-wrap items-baseline gap-x-8 gap-y-2">
        <h1 className="text-3xl">{title}</h1>
        {add && (
          <Button kind="quiet" onClick={add.onAdd}>
            {add.word}
          </Button>
        )}
      </div>
      {kind && <PutBack kind={kind} />}
      {items.length === 0 && <p className="mt-4 text-xl text-quiet">{empty}</p>}
      <List base={base} items={items} />
      {children}
    </div>
  );
}

function List({ base, items }: { base: string; items: Item[] }) {
  const [shown, setShown] = useState(FIRST_SHOWN);
  const more = items.length - shown;
  return (
    <>
      <ul className="mt-4 grid gap-x-10 sm:grid-cols-2 xl:grid-cols-3">
        {items.slice(0, shown).map((item) => (
          <li key={item.id} className="border-t border-line">
            <Link to={`${base}/${item.id}`} className="-mx-3 block h-full px-3 py-3 hover:bg-raised">
              <span className="block text-xl leading-tight font-bold">{item.name}</span>
              <span className="text-quiet">{item.note}</span>
            </Link>
          </li>
        ))}
      </ul>
      {more > 0 && (
        <div className="mt-4">
          <Button kind="quiet" onClick={() => setShown(shown + FIRST_SHOWN)}>
            {`Show ${Math.min(more, FIRST_SHOWN)} more of ${more}`}
          </Button>
        </div>
      )}
    </>
  );
}
