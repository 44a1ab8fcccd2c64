import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { type Problem, problemOf } from "../../api/client";
import { useUnits } from "../../shared/format/useUnits";
import { wordProblem } from "../../shared/format/words";
import { keptQuery } from "../../shared/kitchen";
import { FileButton, FileLink } from "../../shared/ui/files";
import { Notice } from "../../shared/ui/plain";
import { bringIn } from "./queries";

const counted = (count: number, what: string): string => `${count} ${what}${count === 1 ? "" : "s"}`;

const ago = (seconds: number): string =>
  seconds < 7200
    ? counted(Math.max(1, Math.round(seconds / 60)), "minute")
    : seconds < 172_800
      ? counted(Math.round(seconds / 3600), "hour")
      : counted(Math.round(seconds / 86_400), "day");

/** Everything as one open document: taken away, or put in place of all there is. */
export function WorkshopFile() {
  const units = useUnits();
  const queryClient = useQueryClient();
  const [refused, setRefused] = useState<Problem | null>(null);
  const [kept, setKept] = useState("");
  const stored = useQuery(keptQuery).data;
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
      {stored && (
        <div className="max-w-prose space-y-2">
          <h3 className="font-bold">What is kept, where, and how to get it back</h3>
          <p>
            Everything is in one folder on the main machine, {stored.folder}: the database (
            {Math.max(1, Math.round(stored.database_bytes / 1e6))} MB) and {counted(stored.backups, "backup")}
            {stored.newest_backup_s !== null && `, the newest ${ago(stored.newest_backup_s)} old`}. One is
            made every day while the app runs, and before anything risky; each is opened once before it
            counts.
          </p>
          <p>
            To go back to one: stop the app, then <code>umber-pebble restore FILE</code>; what is there now is
            kept as a backup. <code>umber-pebble doctor</code> looks the folder over and says the way out.
          </p>
          <p>
            On a tablet or another browser: only what was noted and not sent yet, until the server has taken
            it. It survives closing; clearing that browser's data loses it.
          </p>
        </div>
      )}
      {kept && <Notice tone="plain">Brought in. What was there before is kept as {kept}.</Notice>}
    </section>
  );
}
