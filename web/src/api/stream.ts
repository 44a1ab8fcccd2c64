/** One live stream shared by all tabs of this browser: the tab that holds the lock listens and tells the rest. */

export type Message =
  | { topic: "thing"; kind: string; id: string }
  | { topic: "run"; id: string; seq: number }
  | { topic: "clock" }
  | { topic: "probe" }
  | { topic: "devices" }
  | { topic: "opened" }
  | { topic: "all" };

const NAME = "umber-pebble-live";

export function listen(onMessage: (message: Message) => void): void {
  const channel = new BroadcastChannel(NAME);
  channel.onmessage = (event: MessageEvent<Message>) => onMessage(event.data);
  const tell = (message: Message) => {
    onMessage(message);
    channel.postMessage(message);
  };
  void navigator.locks.request(NAME, () => new Promise<never>(() => lead(tell)));
}

function lead(tell: (message: Message) => void): void {
  const source = new EventSource("/api/stream");
  let opened = false;
  source.onopen = () => {
    // after a gap anything may have changed; before it first opens, an act may have been told that nobody here heard of
    tell({ topic: opened ? "all" : "opened" });
    opened = true;
  };
  source.onmessage = (event: MessageEvent<string>) => tell(read(JSON.parse(event.data)));
}

/** What the stream says; after what this version does not know anything may have changed. */
function read(said: unknown): Message {
  if (typeof said === "object" && said !== null && "topic" in said) {
    const { topic } = said;
    const id = "id" in said && typeof said.id === "string" ? said.id : null;
    if (topic === "clock" || topic === "probe" || topic === "devices") return { topic };
    if (topic === "thing" && id !== null && "kind" in said && typeof said.kind === "string")
      return { topic, id, kind: said.kind };
    if (topic === "run" && id !== null && "seq" in said && typeof said.seq === "number")
      return { topic, id, seq: said.seq };
  }
  return { topic: "all" };
}
