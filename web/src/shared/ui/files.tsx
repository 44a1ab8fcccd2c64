import { type ReactNode, useRef } from "react";
import { Button } from "./plain";

/** A file to be taken away. */
export function FileLink({ href, children }: { href: string; children: ReactNode }) {
  return (
    <a href={href} download className="font-bold text-glass underline underline-offset-4">
      {children}
    </a>
  );
}

/** A button that asks for a file and hands its text on. */
export function FileButton({
  label,
  accept,
  children,
  onText,
}: {
  label: string;
  accept: string;
  children: ReactNode;
  onText: (text: string) => void;
}) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <Button kind="quiet" onClick={() => input.current?.click()}>
        {children}
      </Button>
      <input
        ref={input}
        type="file"
        accept={accept}
        aria-label={label}
        className="sr-only"
        tabIndex={-1}
        onChange={(event) => {
          void event.target.files?.[0]?.text().then(onText);
          event.target.value = "";
        }}
      />
    </>
  );
}
