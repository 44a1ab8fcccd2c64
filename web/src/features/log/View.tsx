import { useQuery } from "@tanstack/react-query";
import { useParams } from "react-router";
import { dayAndTime } from "../../shared/format/zone";
import { useZone } from "../../shared/kitchen";
import { ListPage } from "../../shared/ui/ListPage";
import { logListQuery, logQuery } from "./queries";
import { RunLog } from "./RunLog";

export function LogView() {
  const { id } = useParams();
  const zone = useZone();
  const runs = useQuery(logListQuery).data?.items;
  const log = useQuery({ ...logQuery(id ?? ""), enabled: id !== undefined }).data?.log;
  if (!runs) return null;
  return (
    <ListPage
      title="Log"
      base="/log"
      open={id}
      items={runs.map((run) => ({
        id: run.id,
        name: run.name,
        note: `${dayAndTime(new Date(run.started_at), zone)}${run.ended_at ? "" : ", live"}${run.recomputed ? ", reckoned anew" : ""}, ${run.cast} cast, ${run.unusable} unusable`,
      }))}
      empty="Start a run from a plan: it is written down here as it goes."
    >
      {log && <RunLog key={log.summary.id} log={log} zone={zone} />}
    </ListPage>
  );
}
