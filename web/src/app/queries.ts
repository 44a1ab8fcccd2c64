import { QueryClient, queryOptions } from "@tanstack/react-query";
import { ApiError, call, client } from "../api/client";
import type { Message } from "../api/stream";

/** The server's clock against its machine's. */
export const clockQuery = queryOptions({
  queryKey: ["clock"],
  queryFn: () => call(client.GET("/api/clock")),
  // also how a page knows that the app is there
  refetchInterval: 5000,
  networkMode: "always",
  retry: false,
});

export function makeQueryClient(): QueryClient {
  return new QueryClient({
    defaultOptions: {
      queries: {
        staleTime: 60_000,
        refetchOnWindowFocus: "always",
        retry: (count, error) => count < 20 && error instanceof ApiError && error.problem.status === 0,
        retryDelay: 1000,
      },
    },
  });
}

/** What a live message makes stale. */
export function onMessage(queryClient: QueryClient, message: Message): void {
  const stale = (...key: string[]) => void queryClient.invalidateQueries({ queryKey: key });
  if (message.topic === "thing") {
    stale(message.kind);
    stale("unread");
    // an order is sent with what is asked about it; all else is looked up
    if (message.kind !== "order") stale("figures");
  } else if (message.topic === "run") {
    stale("bench");
    stale("log");
    stale("figures");
  } else if (message.topic === "probe") {
    stale("probes");
    stale("bench");
  } else if (message.topic === "opened") {
    stale("bench");
  } else if (message.topic === "devices") {
    stale("devices");
  } else if (message.topic === "clock") {
    stale("bench");
    stale("clock");
  } else {
    void queryClient.invalidateQueries();
  }
}
