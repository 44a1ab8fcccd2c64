import { useEffect } from "react";

/** Keeps the screen on while a run is live, where the browser allows it. */
export function useAwake(live: boolean): void {
  useEffect(() => {
    if (!live || !("wakeLock" in navigator)) return;
    let lock: WakeLockSentinel | undefined;
    const hold = () => {
      if (document.visibilityState === "visible")
        navigator.wakeLock.request("screen").then(
          (held) => {
            lock = held;
          },
          () => undefined,
        );
    };
    hold();
    document.addEventListener("visibilitychange", hold);
    return () => {
      document.removeEventListener("visibilitychange", hold);
      void lock?.release();
    };
  }, [live]);
}
