import { type FormEvent, useState } from "react";
import { Link } from "react-router";
import { Refused, type Schemas } from "../../api/client";
import { plural, typedNumber } from "../../domain/format";
import { labelOf, WORDS } from "../../domain/words";
import { useTrialPatch } from "../../parts/useTrialPatch";
import { Button } from "../../ui/Button";
import { Choice, Options } from "../../ui/Choice";
import { Field } from "../../ui/Field";
import { OneOf } from "../../ui/OneOf";

/**
 * How it is cut: limits, checks, edges a blade; and which of the two honest readings of hardness is
 * taken.
 */
export function TrialMethod({ lineUp }: { lineUp: Schemas["LineUpOut"] }) {
  const { trial } = lineUp;
  const fixed = lineUp.runs.some((r) => !r.practice);
  const [open, setOpen] = useState(false);
  const { change } = useTrialPatch(trial);
  return (
    <section aria-label="Method">
      <h2 className="text-lead font-bold">How it is cut</h2>
      <p className="mt-2">
        <Link
          to={`/trials/${trial.id}/method`}
          className="font-semibold underline underline-offset-4"
        >
          {trial.method.name}
        </Link>
        , {trial.medium || "medium not named"}: a run {trial.method.ends_when}. Checked{" "}
        {trial.method.checked}. {plural(trial.edges_per_blade, "edge")} a blade;{" "}
        {trial.settled_rule}.
      </p>
      {fixed ? (
        <p className="mt-1 text-note text-ink-2">
          Which edges count is fixed, because a run was cut. A changed method gets a new version.
        </p>
      ) : open ? (
        <EdgesForm trial={trial} onDone={() => setOpen(false)} />
      ) : (
        <Button kind="quiet" className="px-0" onClick={() => setOpen(true)}>
          Choose which edges count
        </Button>
      )}
      <p className="mt-4 font-semibold">Compare at hardness</p>
      <OneOf
        says="Compare at hardness"
        value={trial.hardness_reading}
        onPick={(hardness_reading) => change({ hardness_reading })}
        ways={[
          [
            "same_hardness",
            <Way
              key="same"
              is={labelOf("hardnessReadings", "same_hardness")}
              asks="the nature of the steel"
            />,
          ],
          [
            "as_usually_hardened",
            <Way
              key="usual"
              is={labelOf("hardnessReadings", "as_usually_hardened")}
              asks="what a user gets"
            />,
          ],
        ]}
      />
    </section>
  );
}

function Way({ is, asks }: { is: string; asks: string }) {
  return (
    <span>
      {is} <span className="text-note text-ink-2">(asks about {asks})</span>
    </span>
  );
}

function EdgesForm({ trial, onDone }: { trial: Schemas["TrialOut"]; onDone: () => void }) {
  const [edges, setEdges] = useState(String(trial.edges_per_blade));
  const [kind, setKind] = useState(trial.settled_kind);
  const [first, setFirst] = useState(String(trial.settled_edge_number));
  const [removed, setRemoved] = useState(String(trial.settled_steel_removed_mm));
  const save = useTrialPatch(trial, onDone);
  const refused = save.error instanceof Refused ? save.error : null;
  const numbers = [edges, first, removed].map(typedNumber);
  const wrong = (i: number, typed: string) =>
    numbers[i] === undefined || numbers[i] === null ? `“${typed}” is not a number` : undefined;
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (numbers.some((n) => n === undefined || n === null)) return;
    save.change({
      edges_per_blade: numbers[0] ?? null,
      settled_kind: kind,
      settled_edge_number: numbers[1] ?? null,
      settled_steel_removed_mm: numbers[2] ?? null,
    });
  };
  return (
    <form onSubmit={submit} className="mt-3 grid grid-cols-2 gap-3" noValidate>
      <Field
        label="Edges a blade"
        inputMode="numeric"
        value={edges}
        onChange={(e) => setEdges(e.target.value)}
        error={wrong(0, edges) ?? refused?.at("edges_per_blade")}
      />
      <Choice
        label="Which edges count"
        term="settled edge"
        value={kind}
        onPick={(picked) => setKind(picked as typeof kind)}
        hint="Fixed before the first cut; results are shown with and without the rest."
      >
        <Options of={WORDS.settledRules} />
      </Choice>
      {kind === "edge_number" ? (
        <Field
          label="From edge number"
          inputMode="numeric"
          value={first}
          onChange={(e) => setFirst(e.target.value)}
          error={wrong(1, first) ?? refused?.at("settled_edge_number")}
        />
      ) : kind === "steel_removed" ? (
        <Field
          label="Steel removed"
          unit="mm"
          inputMode="decimal"
          value={removed}
          onChange={(e) => setRemoved(e.target.value)}
          error={wrong(2, removed) ?? refused?.at("settled_steel_removed_mm")}
        />
      ) : (
        <span />
      )}
      {refused && !refused.problem.field ? (
        <p className="col-span-2 text-rust">{refused.message}</p>
      ) : null}
      <Button kind="next" type="submit" className="col-span-2" disabled={save.isPending}>
        Save
      </Button>
    </form>
  );
}
