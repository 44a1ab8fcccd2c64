import { call, client, type Schemas } from "../api/client";

type Told = Partial<Omit<Schemas["TakeReady"], "mould_id" | "piece_id">> &
  Pick<Schemas["TakeReady"], "shape">;

/** A ready piece and its mould put into the workshop, as it usually is where nothing else is told: its id. */
export async function takeReady(told: Told): Promise<string> {
  const body = {
    mould_id: crypto.randomUUID(),
    piece_id: crypto.randomUUID(),
    across_m: null,
    thickness_m: null,
    material: null,
    ...told,
  };
  return (await call(client.POST("/api/ready", { body }))).piece_id;
}
