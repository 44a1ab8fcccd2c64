import { useQuery, useQueryClient } from "@tanstack/react-query";
import type { ReactNode } from "react";
import { call, client, problemOf } from "../api/client";
import { duration } from "../shared/format/units";
import { timeOfDay } from "../shared/format/zone";
import { keptQuery, kitchenQuery, unreadQuery } from "../shared/kitchen";
import { clockQuery } from "./queries";

/** Less than this between two clocks does not matter to anybody. */
const PARTED_S = 60;

/** What the app itself has to say, on every screen: things it cannot read, clocks that part, backups that are old. */
export function Notices() {
  const queryClient = useQueryClient();
  const unread = useQuery(unreadQuery).data?.items ?? [];
  const ahead = useQuery(clockQuery).data?.ahead_s;
  const kept = useQuery(keptQuery).data;
  const follow = async () => {
    await call(client.POST("/api/clock/follow", { body: {} }));
    await queryClient.invalidateQueries();
  };
  const backUp = async () => {
    await call(client.POST("/api/kept", { body: {} }));
    await queryClient.invalidateQueries({ queryKey: ["kept"] });
  };
  return (
    <>
      <NoAnswer />
      {unread.length > 0 && (
        <Said title={`${unread.map((of) => `${of.name} (${of.kind})`).join(", ")} not shown:`}>
          this version cannot read {unread.length === 1 ? "it" : "them"}. Nothing is lost: it is kept as it is
          and goes out with the export (Kitchen).
        </Said>
      )}
      {ahead !== undefined && Math.abs(ahead) > PARTED_S && (
        <Said
          title={`The app's clock is ${duration(Math.abs(ahead))} ${ahead > 0 ? "ahead of" : "behind"} its machine's.`}
        >
          A running order keeps its times by the app's. If the machine's time is right, take it; a running
          order's times then move by as much.
          <Act onClick={() => void follow()}>Take the machine's time</Act>
        </Said>
      )}
      {kept?.old && kept.newest_backup_s !== null && (
        <Said title={`The newest backup is ${Math.floor(kept.newest_backup_s / 86400)} days old.`}>
          <Act onClick={() => void backUp()}>Back up now</Act>
        </Said>
      )}
    </>
  );
}

/** The app is away, of how long ago what is shown is, and what becomes of what is noted: on every open page. */
export function NoAnswer() {
  const kitchen = useQuery(kitchenQuery);
  const why = useQuery(clockQuery).error;
  if (why === null || problemOf(why).code !== "unreachable") return null;
  return (
    <Said title="The app does not answer.">
      What is shown is of {timeOfDay(new Date(kitchen.dataUpdatedAt), kitchen.data?.doc.zone ?? "UTC")}. What
      was not open yet stays empty. What you note is kept here and goes out when it answers again.
    </Said>
  );
}

function Said({ title, children }: { title: string; children: ReactNode }) {
  return (
    <p
      className="flex flex-wrap items-center gap-x-3 gap-y-1 border-b border-line bg-panel px-5 py-2"
      role="status"
    >
      <strong>{title}</strong> {children}
    </p>
  );
}

function Act({ onClick, children }: { onClick: () => void; children: ReactNode }) {
  return (
    <button type="button" className="rounded-sm border border-line px-3 py-1 font-bold" onClick={onClick}>
      {children}
    </button>
  );
}
