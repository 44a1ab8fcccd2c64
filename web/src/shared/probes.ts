import { queryOptions } from "@tanstack/react-query";
import { call, client, type Schemas } from "../api/client";

const EVERY_MS = 1000;

export const probesQuery = queryOptions({
  queryKey: ["probes"],
  queryFn: () => call(client.GET("/api/probes")),
  refetchInterval: EVERY_MS,
});

export const assignProbe = (id: string, subject: Schemas["ProbedIn"] | null) =>
  call(client.POST("/api/probes/{id}/subject", { params: { path: { id } }, body: { subject } }));

export const keepProbe = (id: string, body: Schemas["Probe"]) =>
  call(client.POST("/api/probes/{id}", { params: { path: { id } }, body }));

/** What is wrong with a probe, in words; nothing when it may be believed. */
export const PROBE_WORDS: Record<Schemas["ProbeView"]["state"], string> = {
  ok: "",
  waiting: "says nothing yet",
  old: "silent for 10 s: not now's value",
  settling: "",
  lost: "unplugged",
  out_of_range: "out of range: left out",
  jumping: "jumping: left out",
  stuck: "stuck on one figure: left out",
};
