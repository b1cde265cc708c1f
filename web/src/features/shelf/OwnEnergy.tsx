import { useMutation } from "@tanstack/react-query";
import type { Schemas } from "../../api/client";
import { energyOfCurve, energyOfPendulum } from "../../api/hanging";
import { LIMITS } from "../../domain/limits.gen";
import { Faults } from "../../parts/Faults";
import { Button } from "../../ui/Button";
import { Field } from "../../ui/Field";
import { FilePick } from "../../ui/FilePick";
import { Notice } from "../../ui/Notice";
import { useForm } from "../../ui/useForm";

type Take = (energy: Schemas["EnergyOut"]) => void;

/** The area under force over deflection, put into the form. */
export function CurveEnergy({ onTake }: { onTake: Take }) {
  const read = useMutation({ mutationFn: energyOfCurve, onSuccess: onTake });
  return (
    <>
      <FilePick
        label="CSV with deflection_mm and force_n, up to the break"
        onPick={(files) => (files[0] ? read.mutate(files[0]) : undefined)}
        isWrong={Boolean(read.error)}
      />
      {read.error ? <Faults error={read.error} /> : null}
      {read.data ? <p role="status">{read.data.says}</p> : null}
    </>
  );
}

const KINDS = {
  mass_kg: { needed: "give the hammer's mass" },
  from_mm: { needed: "give the height it falls from" },
  to_mm: { needed: "give the height it rises to" },
  read_mm: LIMITS.pendulum_mm,
  lost_j: LIMITS.joules,
} as const;

/** What a pendulum gave, put into the form. */
export function PendulumEnergy({ onTake }: { onTake: Take }) {
  const reckon = useMutation({ mutationFn: energyOfPendulum, onSuccess: onTake });
  const form = useForm({
    kinds: KINDS,
    start: { mass_kg: "", from_mm: "", to_mm: "", read_mm: "1", lost_j: "0" },
    error: reckon.error,
  });
  const submit = () => {
    const read = form.read();
    if (!read) return;
    reckon.mutate({ ...read, read_mm: read.read_mm ?? 1, lost_j: read.lost_j ?? 0 });
  };
  return (
    <div className="grid grid-cols-2 gap-3">
      <Field label="Hammer" unit="kg" {...form.field("mass_kg")} />
      <Field label="Heights read to" unit="mm" {...form.field("read_mm")} />
      <Field label="Falls from" unit="mm" {...form.field("from_mm")} />
      <Field label="Rises to" unit="mm" {...form.field("to_mm")} />
      <Field label="Lost without a specimen" unit="J" {...form.field("lost_j")} />
      <Notice says={form.notice} className="col-span-2" />
      <span className="col-span-2 flex items-center gap-4">
        <Button onClick={submit} disabled={reckon.isPending}>
          Calculate energy
        </Button>
        {reckon.data ? <span role="status">{reckon.data.says}</span> : null}
      </span>
    </div>
  );
}
