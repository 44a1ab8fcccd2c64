import type { Schemas } from "../api/client";

/** What an event tells: its kind, and what it says of what. */
export type EventBody = Schemas["EventBody"];
export type EventKind = EventBody["kind"];
export type Payload<K extends EventKind> = Extract<EventBody, { kind: K }>["payload"];

/** What is left in each vessel at the end, by its id [kg]. */
export type Left = NonNullable<Payload<"ended">["left_kg"]>;

export type SendEvent = <K extends EventKind>(kind: K, payload: Payload<K>) => void;

/** Sends by kind and payload, which the types hold together, what is told as a whole. */
export const sends =
  (tell: (told: EventBody) => void): SendEvent =>
  (kind, payload) =>
    tell({ kind, payload } as EventBody);
