import { useQueryClient } from "@tanstack/react-query";
import { useMemo } from "react";
import type { Answer } from "../api/call";
import { projectKey } from "../api/documents";
import { agree, readOff, type Side, takeBack } from "../api/fit";
import { refresh } from "../api/refresh";
import type { Fit, Offered, Problem } from "../api/types";

export type Doing = {
  read: (key: string, text: string, side: Side, inches: boolean) => Promise<Answer<Fit>>;
  agree: (records: Offered[]) => Promise<void>;
  back: (record: string) => Promise<void>;
};

/** What is done in the place besides wishing: reading, saying yes, taking back. The answer is the whole place anew. */
export function useFit(id: string, onProblem: (problem: Problem | null) => void): Doing {
  const client = useQueryClient();
  return useMemo(() => {
    const taken = (answer: Answer<Fit>) => {
      if (answer.ok) client.setQueryData(projectKey(id, "fit"), answer.data);
      return answer;
    };
    const told = (answer: Answer<Fit>) => {
      taken(answer);
      onProblem(answer.ok ? null : answer.problem);
      // What is agreed changes what the saw and the bench do.
      for (const what of ["steps", "step", "paper", "boards"]) refresh(client, projectKey(id, what));
    };
    return {
      read: async (key, text, side, inches) => taken(await readOff(id, key, text, side, inches)),
      agree: async (records) => told(await agree(id, records)),
      back: async (record) => told(await takeBack(id, record)),
    };
  }, [id, client, onProblem]);
}
