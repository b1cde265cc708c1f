import { useState } from "react";
import { putStandInShot, useChange } from "../../api/changes";
import type { Schemas } from "../../api/client";
import { newId } from "../../domain/ids";
import { yesNo } from "../../domain/typed";
import { Field } from "../../ui/Field";
import { Fold } from "../../ui/Fold";
import { FormFoot } from "../../ui/FormFoot";
import { OnOff } from "../../ui/OnOff";
import { useForm } from "../../ui/useForm";

const KINDS = {
  grade: "text",
  seconds: { needed: "say for how many seconds it counts" },
  through_coating: "yes",
  normalise: "yes",
} as const;

/** A shot of the simulated analyser. */
export function SimulatedShot({
  bladeId,
  claim,
  name,
  onDone,
}: {
  bladeId: string;
  claim: string;
  name: string;
  onDone: () => void;
}) {
  const [id] = useState(newId);
  const shoot = useChange(
    (asked: Schemas["StandInShotBody"]) => putStandInShot(bladeId, id, asked),
    () => {
      form.drop();
      onDone();
    },
  );
  const form = useForm({
    draft: `simulated-shot:${bladeId}`,
    kinds: KINDS,
    start: { grade: claim, seconds: "30", through_coating: "", normalise: yesNo(true) },
    error: shoot.error,
  });
  const coating = form.tick("through_coating");
  const normalise = form.tick("normalise");
  return (
    <Fold title="Simulated analyser" className="mt-7 border-t border-line pt-3">
      <form
        onSubmit={form.onSubmit((read) => shoot.mutate({ name, ...read, seed: 0 }))}
        noValidate
        className="grid grid-cols-2 gap-3"
      >
        <Field label="True composition" {...form.field("grade")} />
        <Field label="Counting" unit="s" {...form.field("seconds")} />
        <OnOff label="Through a coating" on={coating.checked} onTurn={coating.onTick} />
        <OnOff label="Normalise to 100 %" on={normalise.checked} onTurn={normalise.onTick} />
        <FormFoot className="col-span-2" form={form} isSaving={shoot.isPending}>
          Add a simulated shot
        </FormFoot>
      </form>
    </Fold>
  );
}
