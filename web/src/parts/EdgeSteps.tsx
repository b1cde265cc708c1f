import { useState } from "react";
import { putEdge, useChange } from "../api/changes";
import { Refused, type Schemas } from "../api/client";
import { Button } from "../ui/Button";
import { Notice } from "../ui/Notice";
import { StepList } from "./StepList";
import { readSteps, StepsEditor, typedStep } from "./StepsEditor";

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
  const [typed, setTyped] = useState(() => edge.steps.map(typedStep));
  const save = useChange(
    (body: Schemas["EdgeBody"]) => putEdge(bladeId, body),
    () => setEditing(false),
  );
  const refused = save.error instanceof Refused ? save.error : null;
  const steps = readSteps(typed);
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
          <StepsEditor
            steps={typed}
            onChange={setTyped}
            refusedField={refused?.problem.field}
            refusal={refused?.message ?? ""}
          />
          <Notice
            says={refused?.problem.field?.startsWith("steps.") ? undefined : save.error?.message}
          />
          <div className="mt-2 flex gap-3">
            <Button
              kind="next"
              disabled={!steps || save.isPending}
              onClick={() => (steps ? save.mutate({ id: edge.id, steps }) : undefined)}
            >
              Save steps
            </Button>
            <Button kind="quiet" onClick={() => setEditing(false)}>
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
          <Button
            kind="quiet"
            className="px-0"
            onClick={() => {
              setTyped(edge.steps.length ? edge.steps.map(typedStep) : [typedStep()]);
              setEditing(true);
            }}
          >
            {edge.steps.length ? "Change the procedure" : "Record the steps"}
          </Button>
        </>
      )}
    </section>
  );
}
