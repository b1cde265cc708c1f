import { useState } from "react";
import { putEdge, useChange } from "../api/changes";
import type { Schemas } from "../api/client";
import { Button } from "../ui/Button";
import { Notice } from "../ui/Notice";
import { elsewhere } from "../ui/refusal";
import { StepList } from "./StepList";
import { StepsEditor } from "./StepsEditor";
import { NEW_STEP, stepsSent, useSteps } from "./steps";

/** How an edge was made, step by step. */
export function EdgeSteps({
  bladeId,
  edge,
  recipeName,
  departures,
}: {
  bladeId: string;
  edge: Schemas["EdgeOut"];
  recipeName: string | undefined;
  departures: string[];
}) {
  const [editing, setEditing] = useState(false);
  const steps = useSteps(`steps:${edge.id}`, edge.steps.length ? edge.steps : [NEW_STEP]);
  const save = useChange(
    (body: Schemas["EdgeBody"]) => putEdge(bladeId, body),
    () => close(),
  );
  const close = () => {
    steps.drop();
    setEditing(false);
  };
  const read = steps.read();
  return (
    <section aria-label="Steps">
      <h3 className="font-semibold">
        {edge.factory
          ? "The maker's own edge"
          : recipeName
            ? `By “${recipeName}”`
            : edge.regime || "Steps"}
        {edge.strokes_per_side ? `, ${edge.strokes_per_side} strokes a side` : ""}
        {edge.minutes !== null ? `, ${edge.minutes} min` : ""}
      </h3>
      {editing ? (
        <>
          <StepsEditor steps={steps} error={save.error} />
          <Notice says={elsewhere(save.error, new Set(steps.fields("steps")))} />
          <div className="mt-2 flex gap-3">
            <Button
              kind="next"
              disabled={!read || save.isPending}
              onClick={() => read && save.mutate({ id: edge.id, steps: stepsSent(read) })}
            >
              Save steps
            </Button>
            <Button kind="quiet" onClick={close}>
              Cancel
            </Button>
          </div>
        </>
      ) : (
        <>
          <StepList steps={edge.steps} className="mt-1 pl-6" />
          {departures.map((d) => (
            <p key={d} className="border-l-4 border-glint pl-3 text-note">
              Other than the recipe, {d}.
            </p>
          ))}
          <Button kind="quiet" className="px-0" onClick={() => setEditing(true)}>
            {edge.steps.length ? "Change the procedure" : "Record the steps"}
          </Button>
        </>
      )}
    </section>
  );
}
