import type { Schemas } from "../../api/client";

/** What may be seen in a pot or bowl, what it means, and what may be done. */
export function Faults({ faults }: { faults: Schemas["Fault"][] | undefined }) {
  return (
    <>
      <h2 className="mt-8 border-b border-line pb-1 text-xl">If you see</h2>
      <dl className="mt-2 max-w-3xl space-y-2">
        {faults?.map((fault) => (
          <div key={fault.seen}>
            <dt className="font-bold">{fault.seen}</dt>
            <dd>
              {fault.means} <span className="font-bold">{fault.do}</span>
            </dd>
          </div>
        ))}
      </dl>
    </>
  );
}
