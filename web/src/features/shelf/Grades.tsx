import { type FormEvent, useState } from "react";
import { putGrade, useChange } from "../../api/changes";
import { Refused, type Schemas } from "../../api/client";
import { typedNumber } from "../../domain/format";
import { standingWords } from "../../parts/standings";
import { Button } from "../../ui/Button";
import { Field } from "../../ui/Field";

/** How grades are usually hardened: it decides what “as usually hardened” means in a trial. */
export function Grades({ grades }: { grades: Schemas["GradeOut"][] }) {
  const [typed, setTyped] = useState({ name: "", low: "", high: "", source: "" });
  const save = useChange(putGrade, () => setTyped({ name: "", low: "", high: "", source: "" }));
  const refused = save.error instanceof Refused ? save.error : null;
  const numbers = { low: typedNumber(typed.low), high: typedNumber(typed.high) };
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (Object.values(numbers).includes(undefined)) return;
    save.mutate({
      name: typed.name,
      usual_low_hrc: numbers.low ?? null,
      usual_high_hrc: numbers.high ?? null,
      source: typed.source,
      standing: "measured_elsewhere",
    });
  };
  const field = (name: keyof typeof typed, wire: string = name) => ({
    value: typed[name],
    onChange: (e: { target: { value: string } }) => setTyped({ ...typed, [name]: e.target.value }),
    error:
      name in numbers && numbers[name as "low" | "high"] === undefined
        ? `“${typed[name]}” is not a number`
        : refused?.at(wire),
  });
  return (
    <div className="grid gap-x-12 gap-y-6 pt-4 bench:grid-cols-2">
      <table className="h-fit w-full border-collapse">
        <thead>
          <tr className="border-b-[1.5px] border-ink text-left text-note text-ink-2">
            <th className="py-1 font-medium">grade</th>
            <th className="py-1 font-medium">usually hardened to</th>
            <th className="py-1 font-medium">how that is known</th>
          </tr>
        </thead>
        <tbody>
          {grades.map((g) => (
            <tr key={g.name} className="border-b border-line">
              <th scope="row" className="py-1.5 text-left">
                {g.name}
              </th>
              <td>
                {g.usual_low_hrc !== null && g.usual_high_hrc !== null
                  ? `${g.usual_low_hrc} to ${g.usual_high_hrc} HRC`
                  : "not known"}
              </td>
              <td className="text-note text-ink-2">
                {g.own ? "yours" : standingWords(g.standing ?? "guessed")}
                {g.source ? `: ${g.source}` : ""}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <form onSubmit={submit} noValidate className="grid h-fit grid-cols-2 gap-3">
        <h2 className="col-span-2 text-lead font-bold">As you have it</h2>
        <Field label="Grade, by its designation" className="col-span-2" {...field("name")} />
        <Field
          label="Usually from"
          unit="HRC"
          inputMode="decimal"
          {...field("low", "usual_low_hrc")}
        />
        <Field label="to" unit="HRC" inputMode="decimal" {...field("high", "usual_high_hrc")} />
        <Field label="Where that is from" className="col-span-2" {...field("source")} />
        <Button
          kind="next"
          type="submit"
          className="col-span-2 justify-self-start"
          disabled={save.isPending}
        >
          Keep it
        </Button>
      </form>
    </div>
  );
}
