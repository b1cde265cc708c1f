import { useState } from "react";
import { deleteEdge, putEdge, useChange } from "../api/changes";
import { Refused, type Schemas } from "../api/client";
import { Button } from "../ui/Button";
import { Field } from "../ui/Field";
import { Notice } from "../ui/Notice";
import { Tick } from "../ui/Tick";

/** Whether an edge counts, by the rule or by the tester's own word. */
export function EdgeCounting({
  bladeId,
  edge,
  standing,
}: {
  bladeId: string;
  edge: Schemas["EdgeOut"];
  standing: Schemas["EdgeStandingOut"] | undefined;
}) {
  const [reason, setReason] = useState(edge.overrule_reason);
  const save = useChange((body: Schemas["EdgeBody"]) => putEdge(bladeId, body));
  const remove = useChange((id: string) => deleteEdge(bladeId, id));
  const refused = save.error instanceof Refused ? save.error : null;
  return (
    <section aria-label="Does it count">
      <h3 className="font-semibold">Does it count?</h3>
      <p>
        {standing?.settled.state === "settled"
          ? "Yes"
          : standing?.settled.state === "unknown"
            ? "Not known yet"
            : "No"}
        , by the usual rule: {standing?.settled.says}.
      </p>
      <Tick
        label="It is the maker's own edge"
        checked={edge.factory}
        onTick={(on) => save.mutate({ id: edge.id, factory: on })}
      />
      <Tick
        label={`It is at least edge ${edge.number}; what was sharpened before is not known`}
        checked={edge.number_is_least}
        onTick={(on) => save.mutate({ id: edge.id, number_is_least: on })}
      />
      <Field
        label="Decide otherwise, because"
        value={reason}
        onChange={(e) => setReason(e.target.value)}
        error={refused?.at("overrule_reason")}
        hint="The reason stays visible, and results are shown with and without."
      />
      <div className="mt-2 flex flex-wrap gap-3">
        <Button
          onClick={() => save.mutate({ id: edge.id, overrule: true, overrule_reason: reason })}
        >
          It counts
        </Button>
        <Button
          onClick={() => save.mutate({ id: edge.id, overrule: false, overrule_reason: reason })}
        >
          It does not
        </Button>
        {edge.overrule !== null ? (
          <Button
            kind="quiet"
            onClick={() => save.mutate({ id: edge.id, overrule: null, overrule_reason: "" })}
          >
            Follow the rule again
          </Button>
        ) : null}
        <Button kind="quiet" onClick={() => remove.mutate(edge.id)}>
          Delete edge: recorded by mistake
        </Button>
      </div>
      <Notice
        says={remove.error?.message ?? (refused?.problem.field ? undefined : save.error?.message)}
      />
    </section>
  );
}
