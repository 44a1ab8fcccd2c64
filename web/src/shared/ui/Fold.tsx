import { Disclosure, DisclosureButton, DisclosurePanel } from "@headlessui/react";
import type { ReactNode } from "react";

interface Props {
  title: string;
  note?: string;
  open?: boolean;
  children: ReactNode;
}

/** What is opened on demand: its title and a word on what is in it, always to be seen. */
export function Fold({ title, note, open = false, children }: Props) {
  return (
    <Disclosure as="section" defaultOpen={open} aria-label={title} className="border-b border-line">
      <h2>
        <DisclosureButton className="group flex min-h-12 w-full items-center gap-3 text-left hover:bg-panel">
          <svg
            viewBox="0 0 12 12"
            className="h-3 w-3 shrink-0 transition-transform group-data-open:rotate-90 motion-reduce:transition-none"
            aria-hidden="true"
          >
            <path d="M3 1l6 5-6 5" fill="none" stroke="var(--glass)" strokeWidth="2.4" />
          </svg>
          <span className="font-head text-lg font-bold">{title}</span>
          {note && <span className="min-w-0 truncate text-quiet">{note}</span>}
        </DisclosureButton>
      </h2>
      <DisclosurePanel className="pt-1 pb-5">{children}</DisclosurePanel>
    </Disclosure>
  );
}
