import type { ReactNode } from "react";

interface Room {
  to: string;
  name: string;
}

/** A way into the app: where it leads, the key that opens it with Alt, its mark, and the rooms behind it. */
export interface Door extends Room {
  key: string;
  mark: ReactNode;
  rooms: Room[];
}

export const DOORS: Door[] = [
  {
    to: "/orders",
    name: "Orders",
    key: "O",
    mark: <path d="M5 4h14v16l-3.5-2.4L12 20l-3.5-2.4L5 20zM9 9h6M9 13h4" />,
    rooms: [],
  },
  {
    to: "/pieces",
    name: "Pieces",
    key: "P",
    mark: <path d="M3 7h3.2l2 10h7.6l2-10H21M7.4 12.5h9.2" />,
    rooms: [
      { to: "/pieces", name: "Pieces" },
      { to: "/pieces/moulds", name: "Moulds" },
    ],
  },
  {
    to: "/work-out",
    name: "Work out",
    key: "W",
    mark: <path d="M12 4v16M8 20h8M5 7h14M5 7l-2.5 6a2.7 2.7 0 0 0 5 0zM19 7l-2.5 6a2.7 2.7 0 0 0 5 0z" />,
    rooms: [
      { to: "/work-out", name: "Questions" },
      { to: "/work-out/heat", name: "Heat" },
      { to: "/work-out/melt", name: "Melt" },
      { to: "/work-out/temper", name: "Temper" },
      { to: "/work-out/colour", name: "Colour" },
      { to: "/work-out/by-hand", name: "By hand" },
    ],
  },
  {
    to: "/bench",
    name: "Bench",
    key: "B",
    mark: <path d="M4 7h9M4 12h13M4 17h6M15 3.5v17" />,
    rooms: [],
  },
  {
    to: "/log",
    name: "Log",
    key: "L",
    mark: <path d="M4 4v16h16M7 7c2 7 5 9.5 12 10" />,
    rooms: [],
  },
  {
    to: "/kitchen",
    name: "Kitchen",
    key: "K",
    mark: (
      <path d="M5 10h14v6a4 4 0 0 1-4 4H9a4 4 0 0 1-4-4zM2.5 10h19M9 6.5c0-1.5 1.5-1.5 1.5-3M13.5 6.5c0-1.5 1.5-1.5 1.5-3" />
    ),
    rooms: [
      { to: "/kitchen", name: "Kitchen" },
      { to: "/kitchen/materials", name: "Materials" },
      { to: "/kitchen/colours", name: "Colours at hand" },
      { to: "/kitchen/people", name: "People" },
      { to: "/kitchen/devices", name: "Devices" },
      { to: "/kitchen/words", name: "Words" },
    ],
  },
];

/** The door an address is behind. */
export const doorOf = (path: string): Door | undefined =>
  DOORS.find((door) => path === door.to || path.startsWith(`${door.to}/`));

/** The room an address is in: the one with the longest address that leads there. */
export function roomOf(door: Door, path: string): Room | undefined {
  return door.rooms
    .filter((room) => path === room.to || path.startsWith(`${room.to}/`))
    .sort((a, b) => b.to.length - a.to.length)[0];
}
