import { useQueryClient } from "@tanstack/react-query";
import { lazy, Suspense, useEffect } from "react";
import { Button } from "../shared/ui/plain";

const Outbox = lazy(() => import("./Outbox").then((m) => ({ default: m.Outbox })));

const AGAIN_MS = 2000;

/** The server is away: what that means, what to do, and on by itself when it is back. */
export function Away() {
  const queryClient = useQueryClient();
  useEffect(() => {
    const timer = window.setInterval(() => void queryClient.invalidateQueries(), AGAIN_MS);
    return () => window.clearInterval(timer);
  }, [queryClient]);
  return (
    <main className="max-w-xl space-y-4 p-8">
      <h1 className="text-3xl">Umber Pebble does not answer</h1>
      <p>
        This page is open, but the app on the main machine is not running, or the network between them is
        down. What was noted here and not sent yet is kept in this browser and goes out as soon as it answers.
      </p>
      <ul className="list-disc space-y-1 pl-5">
        <li>On the main machine: start the app again; this page goes on by itself.</li>
        <li>On another device: is it in the kitchen's network, and is the main machine awake?</li>
        <li>Keep to the times on the pour cards meanwhile; hot sugar does not wait for a screen.</li>
      </ul>
      <Suspense fallback={null}>
        <Outbox />
      </Suspense>
      <Button onClick={() => void queryClient.invalidateQueries()}>Try now</Button>
    </main>
  );
}
