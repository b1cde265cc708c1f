import { useState } from "react";
import { Link, useNavigate } from "react-router";
import { putRun, useChange } from "../../api/changes";
import type { Schemas } from "../../api/client";
import { newId } from "../../domain/ids";
import { Button, buttonLook } from "../../ui/Button";

/**
 * On with the next of the order, in one press where its edge waits; on the same stretch of edge as
 * before. Where anything is still to be said, the form of the line-up asks for it.
 */
export function NextRun({ trialId, step }: { trialId: string; step: Schemas["NextStepOut"] }) {
  const navigate = useNavigate();
  const [runId] = useState(newId);
  const start = useChange(
    (edgeId: string) =>
      putRun(trialId, {
        id: runId,
        edge_id: edgeId,
        practice: false,
        zone_from_mm: step.zone_from_mm,
        zone_to_mm: step.zone_to_mm,
        insist_on_lot: false,
      }),
    () => navigate(`/runs/${runId}`),
  );
  const form = `/trials/${trialId}/line-up?start=${encodeURIComponent(step.arm_id ?? "")}`;
  const edgeId = step.edge_id;
  if (!edgeId || start.error)
    return (
      <>
        {start.error ? (
          <span role="alert" className="self-center font-medium text-rust">
            {start.error.message}
          </span>
        ) : null}
        <Link className={buttonLook("next")} to={form}>
          {step.says}
        </Link>
      </>
    );
  return (
    <Button kind="next" disabled={start.isPending} onClick={() => start.mutate(edgeId)}>
      {step.says}
    </Button>
  );
}
