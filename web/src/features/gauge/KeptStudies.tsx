import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useChange } from "../../api/changes";
import type { Schemas } from "../../api/client";
import { deleteStudy, keptStudiesQuery, putStudy } from "../../api/gauge";
import { day } from "../../domain/format";
import { newId } from "../../domain/ids";
import { labelOf, WORDS } from "../../domain/words";
import { Button } from "../../ui/Button";
import { Choice, Options } from "../../ui/Choice";
import { Field } from "../../ui/Field";
import { FormFoot } from "../../ui/FormFoot";
import { Notice } from "../../ui/Notice";
import { Heading, Section } from "../../ui/Section";
import { Tick } from "../../ui/Tick";
import { useForm } from "../../ui/useForm";
import { readingsOf, type Study } from "./study";

type Kept = Schemas["KeptStudyOut"];
const KINDS = { instrument: { needed: "name it" }, measures: "text", in_use: "yes" } as const;
const START = { instrument: "", measures: "force", in_use: "no" };

/** Who takes a study's result over: a trial by its method, once it is made, or any plan. */
const reckons = (measures: string) =>
  measures === "force" ? "New trials reckon with it" : "Plans reckon with it";

/** Save what was read under its date, beside the studies before. */
export function KeepStudy({ study }: { study: Study }) {
  const [id, setId] = useState(newId);
  const save = useChange(
    (body: Schemas["KeptStudyBody"]) => putStudy(id, body),
    () => {
      form.drop();
      setId(newId());
    },
  );
  const form = useForm({ draft: "gauge-kept", kinds: KINDS, start: START, error: save.error });
  const readings = readingsOf(study.rows);
  if (readings.length < 2) return null;
  const submit = form.onSubmit(() => {
    const { instrument, measures, in_use } = form.typed;
    save.mutate({
      instrument,
      measures: measures as Kept["measures"],
      in_use: in_use === "yes",
      readings,
      unit: study.unit,
    });
  });
  return (
    <form onSubmit={submit} noValidate className="mt-6 grid max-w-xl grid-cols-2 gap-3">
      <Heading className="col-span-2">Save the study</Heading>
      <Field label="Instrument, line or hand" {...form.field("instrument")} />
      <Choice label="It measures" {...form.choice("measures")}>
        <Options of={WORDS.gaugeMeasures} />
      </Choice>
      {form.typed.measures === "force" || form.typed.measures === "lives" ? (
        <div className="col-span-2">
          <Tick label={reckons(form.typed.measures)} {...form.tick("in_use")} />
        </div>
      ) : null}
      <div className="col-span-2">
        <FormFoot form={form} isSaving={save.isPending}>
          Save study
        </FormFoot>
      </div>
    </form>
  );
}

/** The studies so far, each with what changed since the one before. */
export function KeptStudies() {
  const kept = useQuery(keptStudiesQuery);
  if (!kept.data?.length) return null;
  return (
    <Section title="Studies so far" ruled>
      <ul>
        {kept.data.map((study) => (
          <Entry key={study.id} study={study} />
        ))}
      </ul>
    </Section>
  );
}

function Entry({ study }: { study: Kept }) {
  const { id, instrument, measures, unit, readings, in_use, use } = study;
  const change = useChange((now: boolean) =>
    putStudy(id, { instrument, measures, unit, readings, in_use: now }),
  );
  const remove = useChange(() => deleteStudy(id));
  return (
    <li className="border-b border-line py-3">
      <p>
        <b>
          {instrument}, {labelOf("gaugeMeasures", measures)}
        </b>
        , {day(study.made_utc)}. {study.says}
      </p>
      {study.drift ? <p className="text-ink-2">{study.drift}</p> : null}
      <div className="flex flex-wrap items-center gap-x-5">
        {use ? (
          <Tick
            label={`${reckons(measures)}: ${use}`}
            checked={in_use}
            onTick={(now) => change.mutate(now)}
          />
        ) : null}
        <Button kind="quiet" className="px-0" onClick={() => remove.mutate(undefined)}>
          Delete study
        </Button>
      </div>
      <Notice says={change.error?.message ?? remove.error?.message} />
    </li>
  );
}
