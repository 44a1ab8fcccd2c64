import type { Problem } from "../api/client";
import { useUnits } from "./format/useUnits";
import { wordProblem } from "./format/words";
import { Notice } from "./ui/plain";

/** What is to be said of a file that was read: why it is refused, or what of it was mended or left out. */
export function ReadRemarks({ refused, remarks }: { refused: Problem | null; remarks: string[] }) {
  const units = useUnits();
  return (
    <>
      {refused && <Notice tone="hot">{wordProblem(refused, units)}</Notice>}
      {remarks.map((remark) => (
        <Notice key={remark} tone="plain">
          {remark}.
        </Notice>
      ))}
    </>
  );
}
