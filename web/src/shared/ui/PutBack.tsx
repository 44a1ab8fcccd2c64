import { useQueryClient } from "@tanstack/react-query";
import type { MadeKind } from "../../api/things";
import { useRemoved } from "../removed";
import { Button } from "./plain";

/** After something was removed: what, and the way back. */
export function PutBack({ kind, onBack }: { kind: MadeKind; onBack?: (id: string) => void }) {
  const queryClient = useQueryClient();
  const gone = useRemoved(kind);
  if (!gone) return null;
  const undo = async () => {
    const id = await gone.putBack();
    await queryClient.invalidateQueries({ queryKey: [kind] });
    onBack?.(id);
  };
  return (
    <p role="status" className="mt-3 flex flex-wrap items-baseline gap-4 text-lg">
      <span>{gone.name} is removed.</span>
      <Button kind="quiet" onClick={() => void undo()}>
        Put it back
      </Button>
    </p>
  );
}
