import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { type Problem, problemOf } from "../../api/client";
import { useUnits } from "../../shared/format/useUnits";
import { wordProblem } from "../../shared/format/words";
import { Notice } from "../../shared/ui/controls";
import { FileButton, FileLink } from "../../shared/ui/files";
import { bringIn } from "./queries";

/** Everything as one open document: taken away, or put in place of all there is. */
export function WorkshopFile() {
  const units = useUnits();
  const queryClient = useQueryClient();
  const [refused, setRefused] = useState<Problem | null>(null);
  const [kept, setKept] = useState("");
  const put = async (text: string) => {
    setRefused(null);
    setKept("");
    try {
      setKept((await bringIn(text)).backup);
      await queryClient.invalidateQueries();
    } catch (error) {
      setRefused(problemOf(error));
    }
  };
  return (
    <section aria-label="The whole workshop" className="space-y-3">
      <h2 className="border-b border-line pb-1 text-xl">The whole workshop</h2>
      <p className="max-w-prose">
        Kitchen, moulds, pieces, orders and runs as one open JSON document. Bringing one in puts it in place
        of all there is; what was there is kept as a backup.
      </p>
      <p className="flex flex-wrap items-center gap-x-7 gap-y-2">
        <FileLink href="/api/workshop">Take it away as a file</FileLink>
        <FileButton label="Workshop file" accept=".json,application/json" onText={(text) => void put(text)}>
          Bring one in
        </FileButton>
      </p>
      {refused && (
        <Notice tone="hot">
          {wordProblem(refused, units)} {refused.path && `At ${refused.path}.`} Nothing was changed.
        </Notice>
      )}
      {kept && <Notice tone="plain">Brought in. What was there before is kept as {kept}.</Notice>}
    </section>
  );
}
