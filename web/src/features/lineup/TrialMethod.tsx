import { useState } from "react";
import { Link } from "react-router";
import type { Schemas } from "../../api/client";
import { plural } from "../../domain/format";
import { labelOf } from "../../domain/words";
import { useTrialPatch } from "../../parts/useTrialPatch";
import { Button } from "../../ui/Button";
import { Note } from "../../ui/Note";
import { OneOf } from "../../ui/OneOf";
import { Section } from "../../ui/Section";
import { EdgesForm } from "./EdgesForm";

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
    <Section title="Method">
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
        <Note className="mt-1">
          Which edges count is fixed, because a run was cut. A changed method gets a new version.
        </Note>
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
    </Section>
  );
}

function Way({ is, asks }: { is: string; asks: string }) {
  return (
    <span>
      {is} <span className="text-note text-ink-2">(asks about {asks})</span>
    </span>
  );
}
