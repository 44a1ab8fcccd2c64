import { queryOptions } from "@tanstack/react-query";
import { call, client, type Schemas } from "../../api/client";

/** The pour cards of a run. */
export const cardsQuery = (id: string) =>
  queryOptions({
    queryKey: ["bench", "cards", id],
    queryFn: () => call(client.GET("/api/runs/{id}/cards", { params: { path: { id } } })),
  });

/** What can still be finished of a round that runs short. */
export const shortQuery = (id: string, body: Schemas["ShortRequest"]) =>
  queryOptions({
    queryKey: ["bench", "short", id, body],
    queryFn: async () =>
      (await call(client.POST("/api/runs/{id}/short", { params: { path: { id } }, body }))).short,
    retry: false,
    placeholderData: (before) => before,
  });

/** So often it is looked how a run may go on [ms]. */
const ONWARD_MS = 60_000;

/** How a run may go on from here, as of an event. */
export const onwardQuery = (id: string, seq: number) =>
  queryOptions({
    queryKey: ["onward", id, seq],
    queryFn: async () =>
      (await call(client.GET("/api/runs/{id}/onward", { params: { path: { id } } }))).onward,
    refetchInterval: ONWARD_MS,
    staleTime: ONWARD_MS / 2,
    retry: false,
    placeholderData: (before) => before,
  });

/** The same, after a search of a few seconds. */
export const searchOnward = async (id: string) =>
  (await call(client.POST("/api/runs/{id}/onward/search", { params: { path: { id } } }))).onward;

/** Keeps a picture of a run, and says by which id. */
export async function sendPicture(run: string, file: File): Promise<string> {
  const id = crypto.randomUUID();
  const bytes = new Uint8Array(await file.arrayBuffer());
  let text = "";
  // in pieces: a call takes only so many arguments
  for (let i = 0; i < bytes.length; i += 0x8000)
    text += String.fromCharCode(...bytes.subarray(i, i + 0x8000));
  await call(
    client.POST("/api/runs/{id}/pictures", { params: { path: { id: run } }, body: { id, data: btoa(text) } }),
  );
  return id;
}
