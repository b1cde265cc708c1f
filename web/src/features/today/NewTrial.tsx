import { useQuery } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { useNavigate } from "react-router";
import { useChange } from "../../api/changes";
import { api, body, Refused, type Schemas } from "../../api/client";
import { plainMethod } from "../../api/methods";
import { methodsQuery, shelfQuery } from "../../api/queries";
import { typedNumber } from "../../domain/format";
import { newId } from "../../domain/ids";
import { Button } from "../../ui/Button";
import { Choice, Option } from "../../ui/Choice";
import { Field } from "../../ui/Field";
import { Mark } from "../../ui/Mark";
import { useDraft } from "../../ui/useDraft";

const FACTORS: Array<[NonNullable<Schemas["TrialBody"]["factor"]>, string]> = [
  ["steel", "steel"],
  ["heat_treatment", "heat treatment"],
  ["hardness", "hardness"],
  ["edge_finish", "edge finish"],
  ["flat_finish", "flat finish"],
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
  edge: string;
}

const blank = (): BladeLine => ({ id: newId(), edgeId: newId(), code: "", grade: "", edge: "" });

/**
 * Name the question and the blades: the shortest way from nothing to a line-up. A code of the shelf
 * is that blade.
 */
export function NewTrial() {
  const navigate = useNavigate();
  const shelf = useQuery(shelfQuery);
  const methods = useQuery(methodsQuery);
  const schools = methods.data?.ready ?? [];
  const [start] = useState(() => ({
    trialId: newId(),
    name: "",
    factor: "steel" as (typeof FACTORS)[number][0],
    school: "force_limit_rope",
    medium: "",
    diameter: "",
    counting: "edge_number" as NonNullable<Schemas["TrialBody"]["settled_kind"]>,
    blades: [blank(), blank()],
  }));
  const [typed, setTyped, drop] = useDraft("new-trial", start);
  const { name, factor, medium, diameter, blades, trialId } = typed;
  const onShelf = (code: string) =>
    (shelf.data?.blades ?? []).find(
      ({ blade }) => !blade.archived_utc && blade.code.toLowerCase() === code.trim().toLowerCase(),
    )?.blade;
  const make = useChange(
    async () => {
      const rope = typedNumber(diameter);
      const path = { trial_id: trialId };
      const chosen = schools.find((m) => m.school === typed.school);
      await body(
        api.PUT("/api/trials/{trial_id}", {
          params: { path },
          body: {
            id: trialId,
            name,
            factor,
            medium,
            rope_diameter_mm: rope ?? null,
            settled_kind: typed.counting,
            edges_per_blade: chosen?.ends.find((e) => e.kind === "cycles")?.amount ?? 2,
            method: chosen ? plainMethod(chosen) : null,
          },
        }),
      );
      for (const b of blades.filter((line) => line.code.trim())) {
        const known = onShelf(b.code);
        const place = { params: { path: { ...path, blade_id: known?.id ?? b.id } } };
        if (known)
          await body(
            api.PUT("/api/trials/{trial_id}/places/{blade_id}", {
              ...place,
              body: { role: "", arms: null },
            }),
          );
        else
          await body(
            api.PUT("/api/trials/{trial_id}/blades/{blade_id}", {
              ...place,
              body: {
                id: b.id,
                code: b.code.trim(),
                claimed_grade: b.grade.trim() || null,
                edges: typedNumber(b.edge)
                  ? [{ id: b.edgeId, number: Number(typedNumber(b.edge)) }]
                  : [],
              },
            }),
          );
      }
    },
    () => {
      drop();
      navigate(`/trials/${trialId}/line-up`);
    },
    () => {
      setTyped(typed);
      navigate("/");
    },
  );
  const refused = make.error instanceof Refused ? make.error : null;
  const twice = blades.find(
    (b, i) =>
      b.code.trim() &&
      blades.findIndex((o) => o.code.trim().toLowerCase() === b.code.trim().toLowerCase()) !== i,
  );
  const badRope = typedNumber(diameter) === undefined ? `“${diameter}” is not a number` : undefined;
  const badEdge = blades.find((b) => typedNumber(b.edge) === undefined);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (!twice && !badRope && !badEdge) make.mutate(undefined);
  };
  const change = (i: number, part: Partial<BladeLine>) =>
    setTyped({ ...typed, blades: blades.map((b, at) => (at === i ? { ...b, ...part } : b)) });
  return (
    <form onSubmit={submit} className="flex flex-col gap-5" noValidate>
      <Field
        label="What is the trial called?"
        value={name}
        onChange={(e) => setTyped({ ...typed, name: e.target.value })}
        error={refused?.at("name")}
        placeholder="Raft rope, spring"
        autoFocus
      />
      <Choice
        label="What varies between the blades?"
        value={factor}
        onPick={(picked) => setTyped({ ...typed, factor: picked as typeof factor })}
        hint="Everything else is to be held equal."
      >
        {FACTORS.map(([value, label]) => (
          <Option key={value} value={value}>
            {label}
          </Option>
        ))}
      </Choice>
      <Choice
        label="How is it cut and checked?"
        value={typed.school}
        onPick={(picked) => setTyped({ ...typed, school: picked })}
        hint={schools.find((m) => m.school === typed.school)?.note}
      >
        {schools.map((m) => (
          <Option key={m.school} value={m.school}>
            {m.name}
          </Option>
        ))}
      </Choice>
      <div className="grid grid-cols-[1fr_9rem] gap-3">
        <Field
          label="What is cut?"
          value={medium}
          onChange={(e) => setTyped({ ...typed, medium: e.target.value })}
          placeholder="hemp rope, lot 7"
        />
        <Field
          label="Rope diameter"
          unit="mm"
          inputMode="decimal"
          value={diameter}
          onChange={(e) => setTyped({ ...typed, diameter: e.target.value })}
          error={badRope ?? refused?.at("rope_diameter_mm")}
        />
      </div>
      <fieldset className="flex flex-col gap-3">
        <legend className="mb-2 font-semibold">Blades</legend>
        {blades.map((b, i) => (
          <div key={b.id} className="grid grid-cols-[28px_1fr_1fr_5.5rem] items-start gap-3">
            <span className="mt-8">
              <Mark mark={onShelf(b.code)?.mark ?? (shelf.data?.blades.length ?? 0) + i} />
            </span>
            <Field
              label={`Blade ${i + 1}, code`}
              value={b.code}
              onChange={(e) => change(i, { code: e.target.value })}
              error={twice === b ? `${b.code} is named twice; give one another code` : undefined}
              placeholder={String.fromCharCode(65 + i)}
              list="codes-on-the-shelf"
              hint={onShelf(b.code) ? "the one on the shelf" : undefined}
            />
            <Field
              label="Steel, by its designation"
              value={b.grade}
              onChange={(e) => change(i, { grade: e.target.value })}
              placeholder="1.4034"
            />
            <Field
              label="Edge now"
              inputMode="numeric"
              value={b.edge}
              onChange={(e) => change(i, { edge: e.target.value })}
              error={badEdge === b ? "a number since new" : undefined}
              placeholder="3"
            />
          </div>
        ))}
        <Button
          kind="quiet"
          className="self-start px-0"
          onClick={() => setTyped({ ...typed, blades: [...blades, blank()] })}
        >
          One more blade
        </Button>
      </fieldset>
      <datalist id="codes-on-the-shelf">
        {(shelf.data?.blades ?? []).map(({ blade }) => (
          <option key={blade.id} value={blade.code} />
        ))}
      </datalist>
      <Choice
        label="Which edges count?"
        value={typed.counting}
        onPick={(picked) => setTyped({ ...typed, counting: picked as typeof typed.counting })}
        hint={
          "Fixed before the first cut. The first edges of a blade lie on tired steel and read " +
          "low."
        }
      >
        <Option value="edge_number">from the third sharpening since new or damage</Option>
        <Option value="steel_removed">once half a millimetre of steel is gone</Option>
        <Option value="every_edge">every sharpening</Option>
      </Choice>
      <p className="text-note text-ink-2">
        A run {schools.find((m) => m.school === typed.school)?.ends_when ?? "ends by its method"}.
        Everything of the method can be changed in the plan.
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
