import { useState } from "react";
import { useChange } from "../../api/changes";
import type { Schemas } from "../../api/client";
import { putToughness } from "../../api/hanging";
import { newId } from "../../domain/ids";
import { LIMITS } from "../../domain/limits.gen";
import { WORDS } from "../../domain/words";
import { Choice, Options } from "../../ui/Choice";
import { DayField } from "../../ui/DayField";
import { Field, LongField } from "../../ui/Field";
import { Fold } from "../../ui/Fold";
import { FormFoot } from "../../ui/FormFoot";
import { Note } from "../../ui/Note";
import { useForm } from "../../ui/useForm";
import { CurveEnergy, PendulumEnergy } from "./OwnEnergy";

/** Of a blade, or of a grade by its name. */
export type Owner = { readonly blade_id: string } | { readonly grade: string };

const KINDS = {
  test: { word: "toughnessTests" },
  joules: { needed: "give the energy to break" },
  low_j: LIMITS.joules,
  high_j: LIMITS.joules,
  specimen: "text",
  orientation: { word: "orientations" },
  hardness_hrc: LIMITS.hrc,
  source: "text",
  standing: { word: "standings" },
  way: "text",
  on: "day",
  note: "text",
} as const;
const START = {
  test: "charpy_plain",
  joules: "",
  low_j: "",
  high_j: "",
  specimen: "",
  orientation: "",
  hardness_hrc: "",
  source: "",
  standing: "measured_here",
  way: "given",
  on: "",
  note: "",
};

/** One energy to break: typed, or reckoned from a curve or from a pendulum's two heights. */
export function ToughnessForm({ owner, onDone }: { owner: Owner; onDone: () => void }) {
  const [id] = useState(newId);
  const save = useChange(
    (body: Schemas["ToughnessBody"]) => putToughness(id, body),
    () => {
      form.drop();
      onDone();
    },
  );
  const form = useForm({
    draft: `toughness:${Object.values(owner)[0]}`,
    kinds: KINDS,
    start: START,
    error: save.error,
  });
  const take = (way: "curve" | "pendulum", energy: Schemas["EnergyOut"]) =>
    form.set({
      way,
      joules: energy.joules.toPrecision(4),
      low_j: energy.low_j.toPrecision(4),
      high_j: energy.high_j.toPrecision(4),
    });
  return (
    <form
      onSubmit={form.onSubmit((read) =>
        save.mutate({ ...owner, ...read, way: read.way as "given" | "curve" | "pendulum" }),
      )}
      noValidate
      className="grid grid-cols-2 gap-3"
    >
      <Choice label="Test" {...form.choice("test")}>
        <Options of={WORDS.toughnessTests} />
      </Choice>
      <Choice label="Specimen cut" {...form.choice("orientation")}>
        <Options of={WORDS.orientations} />
      </Choice>
      <Field
        label="Specimen"
        hint="width, height and length, with its notch: 10 x 10 x 55 mm"
        className="col-span-2"
        {...form.field("specimen")}
      />
      <Field label="Energy to break" unit="J" {...form.field("joules")} />
      <Field label="Hardness" unit="HRC" {...form.field("hardness_hrc")} />
      <Field label="Minimum" unit="J" {...form.field("low_j")} />
      <Field label="Maximum" unit="J" {...form.field("high_j")} />
      <Fold title="From a force and deflection file" className="col-span-2">
        <CurveEnergy onTake={(energy) => take("curve", energy)} />
      </Fold>
      <Fold title="From a pendulum's two heights" className="col-span-2">
        <PendulumEnergy onTake={(energy) => take("pendulum", energy)} />
      </Fold>
      <Choice label="Standing" {...form.choice("standing")}>
        <Options of={WORDS.standings} />
      </Choice>
      <Field label="Source" {...form.field("source")} />
      <DayField label="Day" {...form.field("on")} />
      <LongField label="Note" className="col-span-2" {...form.field("note")} />
      <Note className="col-span-2">
        A specimen breaks with force and throws pieces: guard and eye protection, as the machine's
        own rules have it.
      </Note>
      <FormFoot className="col-span-2" form={form} isSaving={save.isPending}>
        Save toughness
      </FormFoot>
    </form>
  );
}
