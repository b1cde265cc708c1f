import { useMutation } from "@tanstack/react-query";
import { api, body } from "../../api/client";
import type { Log, Run } from "./bench";
import type { Shown } from "./projection";

/** What is done at the bench beside counting and reading. */
export function useActions(run: Run | undefined, shown: Shown | null, log: Log) {
  const virtual = useMutation({
    mutationFn: (run_id: string) =>
      body(api.POST("/api/runs/{run_id}/virtual-reading", { params: { path: { run_id } } })),
  });
  return {
    rest: () => void log("pause"),
    spoiled: () => void log("spoiled", { cause: "" }),
    takeOver: () => {
      if (shown && !shown.holds) void log("takeover");
    },
    accept: () => {
      if (shown?.holds && shown.proposals.ids.length)
        void log("accept", { targets: [...shown.proposals.ids] });
    },
    leaveOut: () => {
      for (const id of shown?.proposals.ids ?? [])
        void log("correction", { target: id, becomes: null });
    },
    readVirtual: () => {
      if (run?.is_virtual && !virtual.isPending) virtual.mutate(run.id);
    },
  };
}
