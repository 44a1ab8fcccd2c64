import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";
import { type Problem, problemOf } from "../api/client";

/** Do something to a list of things and go where it leads; a refusal is kept to be shown. */
export function useAttempt(kind: string) {
  const navigate = useNavigate();
  const queryClient = useQueryClient();
  const [problem, setProblem] = useState<Problem | null>(null);
  const attempt = async (work: () => Promise<string>) => {
    try {
      const next = await work();
      setProblem(null);
      await queryClient.invalidateQueries({ queryKey: [kind] });
      navigate(next);
    } catch (error) {
      setProblem(problemOf(error));
    }
  };
  return { problem, attempt };
}
