import type { ReactNode } from "react";

/** A figure of a list of them, over what it is. */
export function Item({ name, children }: { name: string; children: ReactNode }) {
  return (
    <div className="flex flex-col-reverse">
      <dt className="text-quiet">{name}</dt>
      <dd>{children}</dd>
    </div>
  );
}
