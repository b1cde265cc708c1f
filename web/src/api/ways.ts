import { queryOptions } from "@tanstack/react-query";
import type { WordOf } from "../domain/words";
import { api, body } from "./client";

interface Asked {
  readonly question: WordOf<"testQuestions">;
  readonly in_hand: WordOf<"inHand">[];
  readonly blades: number;
  readonly wanted_percent: number;
  readonly hours: number | null;
}

/** The ways of testing that answer a question. */
export const waysQuery = ({ hours, ...asked }: Asked) =>
  queryOptions({
    queryKey: ["ways", hours, asked],
    queryFn: () =>
      body(
        api.GET("/api/ways-of-testing", {
          params: { query: hours === null ? asked : { ...asked, hours } },
        }),
      ),
    staleTime: Number.POSITIVE_INFINITY,
  });
