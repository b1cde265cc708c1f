import { useMutation } from "@tanstack/react-query";
import { useNavigate } from "react-router";
import { putRun } from "../../api/changes";
import { api, body, type Schemas } from "../../api/client";
import { newId } from "../../domain/ids";

/** Where blades take turns layer by layer: on to the other one, in one press. */
export function useTurns(run: Schemas["RunOut"] | undefined) {
  const navigate = useNavigate();
  const turn = useMutation({
    mutationFn: async (here: Schemas["RunOut"]) => {
      const other = await body(
        api.GET("/api/runs/{run_id}/other-blade", { params: { path: { run_id: here.id } } }),
      );
      if (other?.run_id) return other.run_id;
      if (!other?.edge_id) return null;
      const id = newId();
      await putRun(here.trial.id, {
        id,
        edge_id: other.edge_id,
        practice: false,
        zone_from_mm: other.zone_from_mm,
        zone_to_mm: other.zone_to_mm,
        insist_on_lot: false,
      });
      return id;
    },
    onSuccess: (id) => (id ? navigate(`/runs/${id}`) : undefined),
  });
  const take = () => {
    if (run?.alternates && !turn.isPending) turn.mutate(run);
  };
  return { take, error: turn.error };
}
