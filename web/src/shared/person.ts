import { useSyncExternalStore } from "react";

/** Who stands at this device, and the device's own name; kept in this browser. */
const WHO = "umber-pebble-who";
const DEVICE = "umber-pebble-device";
const listeners = new Set<() => void>();

function stored(key: string, make: () => string): string {
  const known = localStorage.getItem(key);
  if (known) return known;
  const fresh = make();
  if (fresh) localStorage.setItem(key, fresh);
  return fresh;
}

export const deviceName = (): string => stored(DEVICE, () => `device-${crypto.randomUUID().slice(0, 8)}`);

export function setPerson(name: string): void {
  localStorage.setItem(WHO, name);
  for (const listener of listeners) listener();
}

/** The person at this device: as chosen, else the first of the kitchen's people. */
export function usePerson(people: string[]): string {
  const chosen = useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => localStorage.getItem(WHO) ?? "",
  );
  return people.includes(chosen) ? chosen : (people[0] ?? "Me");
}
