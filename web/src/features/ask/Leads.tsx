import { useQueryClient } from "@tanstack/react-query";
import { Link, useNavigate } from "react-router";
import { makeThing } from "../../api/things";
import type { Answer } from "../../shared/ask";
import { useUnits } from "../../shared/format/useUnits";
import { wordProblem } from "../../shared/format/words";
import { freshOrder } from "../../shared/freshOrder";
import { waysQuery } from "../../shared/kitchen";
import { takeReady } from "../../shared/ready";
import { Button, Notice } from "../../shared/ui/plain";
import { useAttempt } from "../../shared/useAttempt";

const LOOK = "inline-flex min-h-11 items-center font-bold text-glass underline-offset-4 hover:underline";

/** From an answer one step leads on: into a piece, an order, the room where it is reckoned with all that counts. */
export function Leads({ answer }: { answer: Answer }) {
  const units = useUnits();
  const queryClient = useQueryClient();
  const navigate = useNavigate();
  const { problem, attempt } = useAttempt("piece");
  const piece = async (): Promise<string> => {
    if (answer.question === "how_much" && answer.asked.piece_id !== null) return answer.asked.piece_id;
    const sized = answer.question === "how_much" ? answer.asked : null;
    const piece_id = await takeReady({
      shape: sized?.shape ?? "disc",
      across_m: sized?.across_m ?? null,
      thickness_m: "thickness_m" in answer.asked ? answer.asked.thickness_m : null,
      material: "material" in answer.asked ? answer.asked.material : null,
    });
    await queryClient.invalidateQueries({ queryKey: ["mould"] });
    return piece_id;
  };
  const order = async (): Promise<string> => {
    const count = answer.question === "how_much" ? answer.asked.quantity : null;
    const usual = await queryClient.fetchQuery(waysQuery);
    const doc = freshOrder(usual, await piece(), count ?? undefined);
    const id = await makeThing("order", doc);
    await queryClient.invalidateQueries({ queryKey: ["order"] });
    return id;
  };
  const cast = answer.question === "how_much" || answer.question === "unmould" || answer.question === "keeps";
  const rooms: Partial<Record<Answer["question"], { to: string; word: string }>> = {
    unmould: { to: "/work-out/heat", word: "Compare ways" },
    keeps: { to: "/work-out/heat", word: "The whole way through the cold" },
    still: { to: "/bench", word: "Hold it at the bench" },
    heat: { to: "/work-out/melt", word: "Burst by burst, degree by degree" },
    seed: { to: "/work-out/temper", word: "Temper it, step by step" },
    colour: { to: "/work-out/colour", word: "Swatches, other thicknesses" },
  };
  const room = rooms[answer.question];
  return (
    <>
      <div className="mt-4 flex flex-wrap gap-x-9">
        {room && (
          <Link to={room.to} className={LOOK}>
            {room.word}
          </Link>
        )}
        {answer.question === "stands" && (
          <Link to={answer.asked.piece_id ? `/pieces/${answer.asked.piece_id}` : "/pieces"} className={LOOK}>
            Open the piece
          </Link>
        )}
        {answer.question === "colour" && !answer.coloured && (
          <Link to="/kitchen/colours" className={LOOK}>
            Note your colours
          </Link>
        )}
        {cast && (
          <>
            <Button kind="quiet" onClick={() => void attempt(async () => `/pieces/${await piece()}`)}>
              {answer.question === "how_much" && answer.asked.piece_id !== null
                ? "Open the piece"
                : "Make it a piece"}
            </Button>
            <Button kind="quiet" onClick={() => void attempt(async () => `/orders/${await order()}?new`)}>
              Make it an order
            </Button>
          </>
        )}
        {!cast && (
          <Button kind="quiet" onClick={() => navigate("/orders")}>
            To the orders
          </Button>
        )}
      </div>
      {problem && <Notice tone="hot">{wordProblem(problem, units)}</Notice>}
    </>
  );
}
