import { useMutation, useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { useNavigate } from "react-router";
import { api, body, Refused, type Schemas } from "../../api/client";
import { typedNumber } from "../../domain/format";
import { newId } from "../../domain/ids";
import { Button } from "../../ui/Button";
import { Choice, Field } from "../../ui/Field";
import { Mark } from "../../ui/Mark";

const FACTORS: Array<[NonNullable<Schemas["TrialBody"]["factor"]>, string]> = [
  ["steel", "steel"],
  ["heat_treatment", "heat treatment"],
  ["hardness", "hardness"],
  ["finish", "finish"],
  ["angle", "edge angle"],
  ["geometry", "geometry"],
  ["coating", "coating"],
  ["regime", "sharpening"],
  ["medium", "medium"],
];

interface BladeLine {
  id: string;
  edgeId: string;
  code: string;
  grade: string;
}

const blank = (): BladeLine => ({ id: newId(), edgeId: newId(), code: "", grade: "" });

/** Name the question and the blades: the shortest way from nothing to a line-up. */
export function NewTrial() {
  const navigate = useNavigate();
  const queries = useQueryClient();
  const [trialId] = useState(newId);
  const [name, setName] = useState("");
  const [factor, setFactor] = useState<(typeof FACTORS)[number][0]>("steel");
  const [medium, setMedium] = useState("");
  const [diameter, setDiameter] = useState("");
  const [blades, setBlades] = useState<BladeLine[]>(() => [blank(), blank()]);
  const make = useMutation({
    mutationFn: async () => {
      const rope = typedNumber(diameter);
      const path = { trial_id: trialId };
      await body(
        api.PUT("/api/trials/{trial_id}", {
          params: { path },
          body: { id: trialId, name, factor, medium, rope_diameter_mm: rope ?? null },
        }),
      );
      for (const b of blades.filter((line) => line.code.trim())) {
        await body(
          api.PUT("/api/trials/{trial_id}/blades/{blade_id}", {
            params: { path: { ...path, blade_id: b.id } },
            body: {
              id: b.id,
              code: b.code.trim(),
              claimed_grade: b.grade.trim() || null,
              edges: [{ id: b.edgeId, number: 1 }],
            },
          }),
        );
      }
    },
    onSuccess: async () => {
      await queries.invalidateQueries();
      navigate(`/trials/${trialId}/line-up`);
    },
  });
  const refused = make.error instanceof Refused ? make.error : null;
  const twice = blades.find(
    (b, i) =>
      b.code.trim() && blades.findIndex((o) => o.code.trim().toLowerCase() === b.code.trim().toLowerCase()) !== i,
  );
  const badRope = typedNumber(diameter) === undefined ? `“${diameter}” is not a number` : undefined;
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (!twice && !badRope) make.mutate();
  };
  const change = (i: number, part: Partial<BladeLine>) =>
    setBlades((all) => all.map((b, at) => (at === i ? { ...b, ...part } : b)));
  return (
    <form onSubmit={submit} className="flex flex-col gap-5" noValidate>
      <Field
        label="What is the trial called?"
        value={name}
        onChange={(e) => setName(e.target.value)}
        error={refused?.at("name")}
        placeholder="Raft rope, spring"
        autoFocus
      />
      <Choice
        label="What varies between the blades?"
        value={factor}
        onChange={(e) => setFactor(e.target.value as typeof factor)}
        hint="Everything else is to be held equal."
      >
        {FACTORS.map(([value, label]) => (
          <option key={value} value={value}>
            {label}
          </option>
        ))}
      </Choice>
      <div className="grid grid-cols-[1fr_9rem] gap-3">
        <Field
          label="What is cut?"
          value={medium}
          onChange={(e) => setMedium(e.target.value)}
          placeholder="hemp rope, lot 7"
        />
        <Field
          label="Rope diameter"
          unit="mm"
          inputMode="decimal"
          value={diameter}
          onChange={(e) => setDiameter(e.target.value)}
          error={badRope ?? refused?.at("rope_diameter_mm")}
        />
      </div>
      <fieldset className="flex flex-col gap-3">
        <legend className="mb-2 font-semibold">Blades</legend>
        {blades.map((b, i) => (
          <div key={b.id} className="grid grid-cols-[28px_1fr_1fr] items-start gap-3">
            <span className="mt-8">
              <Mark place={i} />
            </span>
            <Field
              label={`Blade ${i + 1}, code`}
              value={b.code}
              onChange={(e) => change(i, { code: e.target.value })}
              error={twice === b ? `${b.code} is named twice; give one another code` : undefined}
              placeholder={String.fromCharCode(65 + i)}
            />
            <Field
              label="Steel, by its designation"
              value={b.grade}
              onChange={(e) => change(i, { grade: e.target.value })}
              placeholder="1.4034"
            />
          </div>
        ))}
        <Button kind="quiet" className="self-start px-0" onClick={() => setBlades((all) => [...all, blank()])}>
          One more blade
        </Button>
      </fieldset>
      <p className="text-note text-ink-2">
        Cut to keen at 300 gf and dull at 400 gf, checked when Kessik says so; both can be changed in the line-up until
        the first run.
      </p>
      {make.error && !refused?.problem.field ? (
        <p role="alert" className="font-medium text-rust">
          {make.error.message}
        </p>
      ) : null}
      <Button kind="next" type="submit" disabled={make.isPending}>
        Set up the line-up
      </Button>
    </form>
  );
}
