import { keepPreviousData, queryOptions } from "@tanstack/react-query";
import { api, body, type Schemas } from "./client";
import type { paths } from "./schema.gen";

/** What is read from the server, by name; every screen reads through these. */
/** While answers are being worked out, a page asks again by itself. */
const renewed =
  (every: number) => (query: { state: { data?: { working_out: number } | undefined } }) =>
    query.state.data?.working_out ? every : false;

export const todayQuery = queryOptions({
  queryKey: ["today"],
  queryFn: () => body(api.GET("/api/today")),
  refetchInterval: renewed(2000),
});

export const lineUpQuery = (trialId: string) =>
  queryOptions({
    queryKey: ["line-up", trialId],
    queryFn: () =>
      body(api.GET("/api/trials/{trial_id}/line-up", { params: { path: { trial_id: trialId } } })),
  });

export const planQuery = (trialId: string) =>
  queryOptions({
    queryKey: ["plan", trialId],
    queryFn: () =>
      body(api.GET("/api/trials/{trial_id}/plan", { params: { path: { trial_id: trialId } } })),
  });

export const methodsQuery = queryOptions({
  queryKey: ["methods"],
  queryFn: () => body(api.GET("/api/methods")),
});

export const versionsQuery = (trialId: string) =>
  queryOptions({
    queryKey: ["versions", trialId],
    queryFn: () =>
      body(api.GET("/api/trials/{trial_id}/methods", { params: { path: { trial_id: trialId } } })),
  });

export const lotsQuery = queryOptions({
  queryKey: ["lots"],
  queryFn: () => body(api.GET("/api/lots")),
});

export const shotsQuery = queryOptions({
  queryKey: ["shots"],
  queryFn: () => body(api.GET("/api/shots")),
});

export const lotKindsQuery = queryOptions({
  queryKey: ["lot-kinds"],
  queryFn: () => body(api.GET("/api/lots/kinds")),
  staleTime: Number.POSITIVE_INFINITY,
});

export const verdictQuery = (trialId: string) =>
  queryOptions({
    queryKey: ["verdict", trialId],
    queryFn: () =>
      body(api.GET("/api/trials/{trial_id}/verdict", { params: { path: { trial_id: trialId } } })),
    refetchInterval: renewed(700),
  });

export const quantitiesQuery = queryOptions({
  queryKey: ["quantities"],
  queryFn: () => body(api.GET("/api/quantities")),
  staleTime: Number.POSITIVE_INFINITY,
});

export const shelfQuery = queryOptions({
  queryKey: ["shelf"],
  queryFn: () => body(api.GET("/api/shelf")),
});

export const bladeQuery = (bladeId: string) =>
  queryOptions({
    queryKey: ["blade", bladeId],
    queryFn: () =>
      body(api.GET("/api/blades/{blade_id}", { params: { path: { blade_id: bladeId } } })),
  });

type Run = Schemas["RunOut"];

/**
 * Of two states of one run the later one: an answer that was overtaken by an acknowledgement is
 * left aside.
 */
export const later = (known: Run | undefined, come: Run): Run =>
  known && known.state.position > come.state.position ? known : come;

export const runQuery = (runId: string) =>
  queryOptions({
    queryKey: ["run", runId],
    queryFn: async ({ client, queryKey }) => {
      const come = await body(
        api.GET("/api/runs/{run_id}", { params: { path: { run_id: runId } } }),
      );
      return later(client.getQueryData<Run>(queryKey), come);
    },
  });

export const instrumentsQuery = queryOptions({
  queryKey: ["instruments"],
  queryFn: () => body(api.GET("/api/instruments")),
});

export const pairingQuery = queryOptions({
  queryKey: ["pairing"],
  queryFn: () => body(api.GET("/api/pairing")),
});

export const assaysQuery = queryOptions({
  queryKey: ["assays"],
  queryFn: () => body(api.GET("/api/assays")),
});

export const bladeAssayQuery = (bladeId: string, corrected: boolean) =>
  queryOptions({
    queryKey: ["blade-assay", bladeId, corrected],
    queryFn: () =>
      body(
        api.GET("/api/blades/{blade_id}/assay", {
          params: { path: { blade_id: bladeId }, query: { corrected } },
        }),
      ),
  });

export const gradesQuery = queryOptions({
  queryKey: ["grades"],
  queryFn: () => body(api.GET("/api/grades")),
});

export const gradeQuery = (name: string) =>
  queryOptions({
    queryKey: ["grade", name],
    queryFn: () => body(api.GET("/api/grades/{name}", { params: { path: { name } } })),
  });

export const gradesAlikeQuery = queryOptions({
  queryKey: ["grades-alike"],
  queryFn: () => body(api.GET("/api/grades-alike")),
});

export const batchQuery = (batchId: string) =>
  queryOptions({
    queryKey: ["batch", batchId],
    queryFn: () =>
      body(api.GET("/api/batches/{batch_id}", { params: { path: { batch_id: batchId } } })),
  });

export const sideBySideQuery = (first: string, second: string) =>
  queryOptions({
    queryKey: ["side-by-side", first, second],
    queryFn: () => body(api.GET("/api/side-by-side", { params: { query: { first, second } } })),
  });

export const performanceQuery = (asked: {
  method: string;
  against: string;
  of: "life" | "strokes" | "minutes";
}) =>
  queryOptions({
    queryKey: ["performance", asked],
    queryFn: () => body(api.GET("/api/performance", { params: { query: asked } })),
  });

export type StandingsAsked = NonNullable<paths["/api/standings"]["get"]["parameters"]["query"]>;

/** The last answer to a question about all trials; asked again until it is today's. */
export const standingsQuery = (asked: StandingsAsked) =>
  queryOptions({
    queryKey: ["standings", asked],
    queryFn: () => body(api.GET("/api/standings", { params: { query: asked } })),
    placeholderData: keepPreviousData,
    refetchInterval: (query) => (query.state.data?.is_behind ? 700 : false),
  });

export const referencesQuery = (trialId: string) =>
  queryOptions({
    queryKey: ["references", trialId],
    queryFn: () =>
      body(
        api.GET("/api/standings/references/{trial_id}", {
          params: { path: { trial_id: trialId } },
        }),
      ),
  });

export const assayOffersQuery = (trialId: string) =>
  queryOptions({
    queryKey: ["assay-offers", trialId],
    queryFn: () =>
      body(
        api.GET("/api/trials/{trial_id}/assay-offers", { params: { path: { trial_id: trialId } } }),
      ),
  });

export const soaksQuery = queryOptions({
  queryKey: ["soaks"],
  queryFn: () => body(api.GET("/api/soaks")),
  refetchInterval: 60_000,
});

export const soakQuery = (soakId: string) =>
  queryOptions({
    queryKey: ["soak", soakId],
    queryFn: () => body(api.GET("/api/soaks/{soak_id}", { params: { path: { soak_id: soakId } } })),
    refetchInterval: 60_000,
  });

export const soakTableQuery = queryOptions({
  queryKey: ["soaks-side-by-side"],
  queryFn: () => body(api.GET("/api/soaks-side-by-side")),
});

export const soakGradesQuery = queryOptions({
  queryKey: ["soak-grades"],
  queryFn: () => body(api.GET("/api/soak-grades")),
  staleTime: Number.POSITIVE_INFINITY,
});

export const soakMethodsQuery = queryOptions({
  queryKey: ["soak-methods"],
  queryFn: () => body(api.GET("/api/soak-methods")),
  staleTime: Number.POSITIVE_INFINITY,
});

export const bladeSoaksQuery = (bladeId: string) =>
  queryOptions({
    queryKey: ["blade-soaks", bladeId],
    queryFn: () =>
      body(api.GET("/api/blades/{blade_id}/soaks", { params: { path: { blade_id: bladeId } } })),
  });

export const trialSoaksQuery = (trialId: string) =>
  queryOptions({
    queryKey: ["trial-soaks", trialId],
    queryFn: () =>
      body(api.GET("/api/trials/{trial_id}/soaks", { params: { path: { trial_id: trialId } } })),
  });

export const toughnessQuery = (owner: { blade_id?: string; grade?: string }) =>
  queryOptions({
    queryKey: ["toughness", owner.blade_id ?? "", owner.grade ?? ""],
    queryFn: () => body(api.GET("/api/toughness", { params: { query: owner } })),
  });

export const exposuresQuery = (bladeId: string) =>
  queryOptions({
    queryKey: ["exposures", bladeId],
    queryFn: () =>
      body(
        api.GET("/api/blades/{blade_id}/exposures", { params: { path: { blade_id: bladeId } } }),
      ),
  });

export const careQuery = (bladeId: string) =>
  queryOptions({
    queryKey: ["care", bladeId],
    queryFn: () =>
      body(api.GET("/api/blades/{blade_id}/care", { params: { path: { blade_id: bladeId } } })),
  });

export const amongQuery = (soakId: string) =>
  queryOptions({
    queryKey: ["soak-among", soakId],
    queryFn: () =>
      body(api.GET("/api/soaks/{soak_id}/among", { params: { path: { soak_id: soakId } } })),
  });

export const passQuery = (soakId: string, passId: string) =>
  queryOptions({
    queryKey: ["soak-pass", soakId, passId],
    queryFn: () =>
      body(
        api.GET("/api/soaks/{soak_id}/passes/{pass_id}", {
          params: { path: { soak_id: soakId, pass_id: passId } },
        }),
      ),
    retry: false,
  });

export const laidOutQuery = (soakId: string, passId: string) =>
  queryOptions({
    queryKey: ["laid-out", soakId, passId],
    queryFn: () =>
      body(
        api.GET("/api/soaks/{soak_id}/passes/{pass_id}/laid-out/names", {
          params: { path: { soak_id: soakId, pass_id: passId } },
        }),
      ),
  });

export const measuringQuery = (soakId: string, lookId: string) =>
  queryOptions({
    queryKey: ["measuring", soakId, lookId],
    queryFn: () =>
      body(
        api.GET("/api/soaks/{soak_id}/looks/{look_id}/measuring", {
          params: { path: { soak_id: soakId, look_id: lookId } },
        }),
      ),
  });
