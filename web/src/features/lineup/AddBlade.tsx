import { type FormEvent, useState } from "react";
import { Refused, type Schemas } from "../../api/client";
import { typedNumber } from "../../domain/format";
import { newId } from "../../domain/ids";
import { Button } from "../../ui/Button";
import { Field } from "../../ui/Field";
import { putBlade, useLineUpChange } from "./changes";

/** A blade with its first edge here; what is not known yet stays open. */
export function AddBlade({ lineUp, onDone }: { lineUp: Schemas["LineUpOut"]; onDone: () => void }) {
  const [ids] = useState(() => ({ blade: newId(), edge: newId() }));
  const [typed, setTyped] = useState({
    code: "",
    grade: "",
    length: "",
    hardness: "",
    number: "1",
    angle: "",
    thickness: "",
  });
  const value = {
    length: typedNumber(typed.length),
    hardness: typedNumber(typed.hardness),
    number: typedNumber(typed.number),
    angle: typedNumber(typed.angle),
    thickness: typedNumber(typed.thickness),
  };
  const add = useLineUpChange(
    () =>
      putBlade(lineUp.trial.id, {
        id: ids.blade,
        code: typed.code,
        claimed_grade: typed.grade.trim() || null,
        edge_length_mm: value.length ?? null,
        hardness_hrc: value.hardness ?? null,
        edges: [
          {
            id: ids.edge,
            number: value.number ?? 1,
            side_angle_deg: value.angle ?? null,
            thickness_behind_edge_mm: value.thickness ?? null,
          },
        ],
      }),
    onDone,
  );
  const refused = add.error instanceof Refused ? add.error : null;
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (!Object.values(value).includes(undefined)) add.mutate(undefined);
  };
  const field = (name: keyof typeof typed, wireName: string) => ({
    value: typed[name],
    onChange: (e: { target: { value: string } }) => setTyped({ ...typed, [name]: e.target.value }),
    error:
      name in value && value[name as keyof typeof value] === undefined
        ? `“${typed[name]}” is not a number`
        : refused?.at(wireName),
  });
  return (
    <form onSubmit={submit} className="grid grid-cols-2 gap-4" noValidate>
      <Field label="Code" {...field("code", "code")} autoFocus />
      <Field label="Steel, by its designation" {...field("grade", "claimed_grade")} />
      <Field label="Edge length" unit="mm" inputMode="decimal" {...field("length", "edge_length_mm")} />
      <Field label="Hardness, if measured" unit="HRC" inputMode="decimal" {...field("hardness", "hardness_hrc")} />
      <Field label="Edge in use, number since new" inputMode="numeric" {...field("number", "number")} />
      <Field label="Angle per side" unit="°" inputMode="decimal" {...field("angle", "side_angle_deg")} />
      <Field
        label="Thickness behind the edge"
        unit="mm"
        inputMode="decimal"
        {...field("thickness", "thickness_behind_edge_mm")}
      />
      {add.error && !refused?.problem.field ? (
        <p role="alert" className="col-span-2 text-rust">
          {add.error.message}
        </p>
      ) : null}
      <Button kind="next" type="submit" className="col-span-2" disabled={add.isPending}>
        Add the blade
      </Button>
    </form>
  );
}
