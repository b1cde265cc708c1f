import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate, useSearchParams } from "react-router";
import { useChange } from "../../api/changes";
import type { Schemas } from "../../api/client";
import { shelfQuery, soakMethodsQuery } from "../../api/queries";
import { patchSoak, putSoak } from "../../api/soaks";
import { newId } from "../../domain/ids";
import { WORDS } from "../../domain/words";
import { Button } from "../../ui/Button";
import { Choice, Option, Options } from "../../ui/Choice";
import { Field, LongField } from "../../ui/Field";
import { FormFoot } from "../../ui/FormFoot";
import { Note } from "../../ui/Note";
import { Failed, Waiting } from "../../ui/State";
import { useForm } from "../../ui/useForm";
import { useRows } from "../../ui/useRows";
import { CouponRows } from "./CouponRows";
import { MethodEditor } from "./MethodEditor";
import type { Soak } from "./soak";
import {
  COUPON_KINDS,
  couponsTyped,
  INTERVENTION_KINDS,
  interventionsTyped,
  type Method,
  methodTyped,
  PHASE_KINDS,
  phasesTyped,
  SOAK_KINDS,
  soakSent,
  soakTyped,
} from "./soakForm";

/** What is asked, under which method, of which coupons. */
export function SoakForm({ soak, onDone }: { soak: Soak | undefined; onDone: () => void }) {
  const methods = useQuery(soakMethodsQuery);
  if (methods.isPending) return <Waiting what="the methods" />;
  if (methods.isError)
    return <Failed error={methods.error} onRetry={() => void methods.refetch()} />;
  return <Form soak={soak} methods={choices(methods.data, soak?.how)} onDone={onDone} />;
}

function Form({
  soak,
  methods,
  onDone,
}: {
  soak: Soak | undefined;
  methods: readonly Method[];
  onDone: () => void;
}) {
  const shelf = useQuery(shelfQuery);
  const navigate = useNavigate();
  const [search] = useSearchParams();
  const asked = soak ? undefined : methods.find((m) => m.key === search.get("method"));
  const usual = soak?.how ?? asked ?? (methods[0] as Method);
  const [start] = useState(() => ({
    soak: soakTyped(soak?.id ?? newId(), soak, usual),
    interventions: interventionsTyped(usual),
    phases: phasesTyped(usual),
    coupons: couponsTyped(soak?.coupons ?? []),
  }));
  const [isOpen, setOpen] = useState(false);
  const save = useChange(
    ({ id, ...body }: Schemas["SoakBody"] & { id: string }) =>
      soak ? patchSoak(id, body) : putSoak(id, body),
    () => {
      const { id } = form.typed;
      for (const part of [form, interventions, phases, coupons]) part.drop();
      onDone();
      if (!soak) navigate(`/soak/${id}`);
    },
  );
  const draft = `soak:${soak?.id ?? asked?.key ?? "new"}`;
  const form = useForm({ draft, kinds: SOAK_KINDS, start: start.soak, error: save.error });
  const interventions = useRows({
    draft: `${draft}:interventions`,
    kinds: INTERVENTION_KINDS,
    start: start.interventions,
  });
  const phases = useRows({
    draft: `${draft}:phases`,
    kinds: PHASE_KINDS,
    start: start.phases,
  });
  const coupons = useRows({
    draft: `${draft}:coupons`,
    kinds: COUPON_KINDS,
    start: start.coupons,
  });
  const method = methods.find((m) => m.key === form.typed.method_key) ?? usual;
  const submit = form.onSubmit((read) => {
    const repeated = interventions.read();
    const inTurn = phases.read();
    const put = coupons.read();
    if (!repeated || !inTurn || !put) return setOpen(true);
    form.set({ id: read.id }); // the same soak after a reload, too
    save.mutate({ id: read.id, ...soakSent(read, method, repeated, inTurn, put) });
  });
  const pick = (key: string) => {
    const picked = methods.find((m) => m.key === key);
    if (!picked) return;
    form.set(methodTyped(picked));
    interventions.put(interventionsTyped(picked));
    phases.put(phasesTyped(picked));
  };
  const atMethod = ["method.name", "stages", "tending", "phases"].map((name) => form.at(name));
  const isMethodWrong = Boolean(form.field("salt_percent").error) || atMethod.some(Boolean);
  return (
    <form onSubmit={submit} noValidate className="grid grid-cols-1 gap-3 bench:grid-cols-6">
      <Field label="Name" className="bench:col-span-2" {...form.field("name")} />
      <Field
        label="The question, in one sentence"
        className="bench:col-span-4"
        {...form.field("question")}
      />
      <Choice label="What varies" className="bench:col-span-2" {...form.choice("factor")}>
        <Options of={WORDS.soakFactors} />
      </Choice>
      <Choice
        label="Method"
        className="bench:col-span-2"
        {...form.choice("method_key", "method")}
        onPick={pick}
      >
        {methods.map((m) => (
          <Option key={m.key} value={m.key}>
            {m.name}
          </Option>
        ))}
      </Choice>
      <Field label="Lasts" unit="h" {...form.field("hours")} />
      <Field label="Inspect at" unit="h" {...form.field("look_h")} />
      <div className="bench:col-span-6">
        <Note>
          {[form.typed.immersed_in, ...form.typed.steps.split("\n"), ...(method.cautions ?? [])]
            .filter(Boolean)
            .join(" · ")}
          {` (${method.source})`}
        </Note>
        <Button kind="quiet" aria-expanded={isOpen} onClick={() => setOpen(!isOpen)}>
          {isOpen ? "Close the method" : "Edit method"}
        </Button>
      </div>
      {isOpen || isMethodWrong ? (
        <div className="bench:col-span-6">
          <MethodEditor form={form} interventions={interventions} phases={phases} />
        </div>
      ) : null}
      <Field label="Salt" className="bench:col-span-2" {...form.field("salt")} />
      <Field label="Water" className="bench:col-span-2" {...form.field("water")} />
      <Field
        label="Baseline must reach grade"
        hint="ISO 10289, 10 is clean"
        className="bench:col-span-2"
        {...form.field("needed_grade")}
      />
      <CouponRows
        rows={coupons}
        blades={shelf.data?.blades.map(({ blade }) => blade) ?? []}
        error={form.at("coupons")}
      />
      <LongField label="Note" className="bench:col-span-6" {...form.field("note")} />
      <FormFoot className="bench:col-span-6" form={form} isSaving={save.isPending}>
        {soak ? "Save changes" : "Save soak"}
      </FormFoot>
    </form>
  );
}

/** The methods on offer; one that a soak uses already stands first. */
function choices(offered: readonly Method[], own: Method | undefined): readonly Method[] {
  const isThere = !own || offered.some((method) => method.key === own.key);
  return own && !isThere ? [own, ...offered] : offered;
}
