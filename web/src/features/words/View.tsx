import { queryOptions, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { call, client } from "../../api/client";
import { TextField } from "../../shared/ui/plain";

const wordsQuery = queryOptions({
  queryKey: ["words"],
  queryFn: async () => (await call(client.GET("/api/words"))).items,
  staleTime: Number.POSITIVE_INFINITY,
});

/** What people call things, and what these screens call them. */
export function WordsView() {
  const words = useQuery(wordsQuery).data ?? [];
  const [looked, setLooked] = useState("");
  const text = looked.trim().toLowerCase();
  const found = words.filter((w) => [w.called, ...w.said].some((said) => said.includes(text)));
  return (
    <div className="max-w-4xl px-7 py-6">
      <h1 className="text-3xl">Words of the trade</h1>
      <div className="mt-4 max-w-sm">
        <TextField label="Look for" value={looked} onChange={setLooked} />
      </div>
      <dl className="mt-6" aria-label="Words">
        {found.map((word) => (
          <div
            key={word.called}
            className="border-t border-line py-3 sm:grid sm:grid-cols-[14rem_1fr] sm:gap-6"
          >
            <dt className="text-xl font-bold">
              <Link to={`/${word.page}`} className="text-glass">
                {word.called}
              </Link>
            </dt>
            <dd>
              {word.means}
              <span className="block text-quiet">
                {word.said.filter((s) => s !== word.called).join(", ")}
              </span>
            </dd>
          </div>
        ))}
      </dl>
      {found.length === 0 && words.length > 0 && (
        <p className="mt-4 text-xl">Nobody has called anything that here yet.</p>
      )}
    </div>
  );
}
