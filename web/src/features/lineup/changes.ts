import { useMutation, useQueryClient } from "@tanstack/react-query";
import { api, body, type Schemas } from "../../api/client";

/** Changes to a line-up; each is saved at once and everything that depends on it is read again. */
export function useLineUpChange<T>(change: (input: T) => Promise<unknown>, onDone?: () => void) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: change,
    onSuccess: async () => {
      await queries.invalidateQueries();
      onDone?.();
    },
  });
}

export const patchBlade = (trialId: string, bladeId: string, change: Schemas["BladePatch"]) =>
  body(
    api.PATCH("/api/trials/{trial_id}/blades/{blade_id}", {
      params: { path: { trial_id: trialId, blade_id: bladeId } },
      body: change,
    }),
  );

export const putBlade = (trialId: string, blade: Schemas["BladeBody"]) =>
  body(
    api.PUT("/api/trials/{trial_id}/blades/{blade_id}", {
      params: { path: { trial_id: trialId, blade_id: blade.id } },
      body: blade,
    }),
  );

export const deleteBlade = (trialId: string, bladeId: string) =>
  body(
    api.DELETE("/api/trials/{trial_id}/blades/{blade_id}", {
      params: { path: { trial_id: trialId, blade_id: bladeId } },
    }),
  );

export const putEdge = (trialId: string, bladeId: string, edge: Schemas["EdgeBody"]) =>
  body(
    api.PUT("/api/trials/{trial_id}/blades/{blade_id}/edges/{edge_id}", {
      params: { path: { trial_id: trialId, blade_id: bladeId, edge_id: edge.id } },
      body: edge,
    }),
  );

export const patchTrial = (trialId: string, change: Schemas["TrialPatch"]) =>
  body(api.PATCH("/api/trials/{trial_id}", { params: { path: { trial_id: trialId } }, body: change }));

export const putRun = (trialId: string, run: Schemas["RunBody"]) =>
  body(
    api.PUT("/api/trials/{trial_id}/runs/{run_id}", {
      params: { path: { trial_id: trialId, run_id: run.id } },
      body: run,
    }),
  );
