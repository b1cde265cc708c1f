import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";
import { api, body, type Schemas } from "../../api/client";
import { newId } from "../../domain/ids";
import { Button } from "../../ui/Button";

/**
 * Cut the stropped edge again: a run of its own that says how long the strop lasts, and compares no
 * steels.
 */
export function CutOn({ run }: { run: Schemas["RunOut"] }) {
  const navigate = useNavigate();
  const [id] = useState(newId);
  const start = useMutation({
    mutationFn: () =>
      body(
        api.PUT("/api/trials/{trial_id}/runs/{run_id}", {
          params: { path: { trial_id: run.trial.id, run_id: id } },
          body: {
            id,
            edge_id: run.edge_id,
            practice: false,
            zone_from_mm: run.zone_from_mm,
            zone_to_mm: run.zone_to_mm,
            after_strop_of: run.id,
          },
        }),
      ),
    onSuccess: () => navigate(`/runs/${id}`),
  });
  return (
    <>
      <Button onClick={() => start.mutate()} disabled={start.isPending}>
        Cut the stropped edge again
      </Button>
      {start.error ? (
        <span className="self-center font-medium text-rust first-letter:uppercase">
          {start.error.message}
        </span>
      ) : null}
    </>
  );
}
