import type { ReactNode } from "react";
import { NavLink } from "react-router";
import { Button } from "./controls";

interface Item {
  id: string;
  name: string;
  note: string;
}

/** A list at the left, the chosen one open beside it. */
export function ListPage({
  title,
  base,
  items,
  onAdd,
  addWord,
  empty,
  children,
}: {
  title: string;
  base: string;
  items: Item[];
  onAdd?: (() => void) | undefined;
  addWord?: string;
  empty: string;
  children: ReactNode;
}) {
  return (
    <div className="flex min-h-full flex-col lg:flex-row">
      <aside className="shrink-0 bg-panel px-5 py-6 lg:w-60">
        <div className="lg:sticky lg:top-6">
          <h1 className="mb-4 text-3xl">{title}</h1>
          {items.length === 0 && <p className="mb-4 text-quiet">{empty}</p>}
          <ul>
            {items.map((item) => (
              <li key={item.id}>
                <NavLink
                  to={`${base}/${item.id}`}
                  className={({ isActive }) =>
                    `-mx-5 block border-l-4 px-5 py-3 ${isActive ? "border-glass bg-raised" : "border-transparent hover:bg-ground"}`
                  }
                >
                  <span className="block text-lg leading-tight font-bold">{item.name}</span>
                  <span className="text-sm text-quiet">{item.note}</span>
                </NavLink>
              </li>
            ))}
          </ul>
          {onAdd && (
            <div className="mt-4">
              <Button kind="quiet" onClick={onAdd}>
                {addWord}
              </Button>
            </div>
          )}
        </div>
      </aside>
      <div className="min-w-0 flex-1">{children}</div>
    </div>
  );
}
