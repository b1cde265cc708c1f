import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useChange } from "../../api/changes";
import type { Schemas } from "../../api/client";
import { putCare, strikeCare } from "../../api/hanging";
import { careQuery } from "../../api/queries";
import { localTime } from "../../domain/format";
import { newId } from "../../domain/ids";
import { LIMITS } from "../../domain/limits.gen";
import { WORDS } from "../../domain/words";
import { Button } from "../../ui/Button";
import { Choice, Options } from "../../ui/Choice";
import { DayField } from "../../ui/DayField";
import { Field } from "../../ui/Field";
import { FormFoot } from "../../ui/FormFoot";
import { Section } from "../../ui/Section";
import { useForm } from "../../ui/useForm";
import { NotedList } from "./NotedList";

/** What was done to a blade for its care, with what came off, and when it is due again. */
export function Care({ bladeId }: { bladeId: string }) {
  const found = useQuery(careQuery(bladeId));
  const [adding, setAdding] = useState(false);
  if (!found.data) return null;
  return (
    <Section title="Care">
      {found.data.length === 0 ? <p className="text-ink-2">None recorded.</p> : null}
      <NotedList
        noted={found.data}
        more={(each) => [each.on, each.due_says, each.note]}
        strike={strikeCare}
      />
      {adding ? (
        <CareForm bladeId={bladeId} onDone={() => setAdding(false)} />
      ) : (
        <Button kind="quiet" className="px-0" onClick={() => setAdding(true)}>
          Record care
        </Button>
      )}
    </Section>
  );
}

const KINDS = {
  kind: { word: "careKinds" },
  on: "day",
  used: "text",
  took_off: { word: "tookOff" },
  again_days: LIMITS.care_days,
  note: "text",
} as const;

function CareForm({ bladeId, onDone }: { bladeId: string; onDone: () => void }) {
  const [id] = useState(newId);
  const save = useChange(
    (act: Schemas["CareBody"]) => putCare(bladeId, id, act),
    () => {
      form.drop();
      onDone();
    },
  );
  const form = useForm({
    draft: `care:${bladeId}`,
    kinds: KINDS,
    start: {
      kind: "oiled",
      on: localTime(new Date()).slice(0, 10),
      used: "",
      took_off: "",
      again_days: "",
      note: "",
    },
    error: save.error,
  });
  return (
    <form
      onSubmit={form.onSubmit((read) => save.mutate(read))}
      noValidate
      className="mt-2 grid grid-cols-2 gap-3"
    >
      <Choice label="It was" {...form.choice("kind")}>
        <Options of={WORDS.careKinds} />
      </Choice>
      <DayField label="Day" {...form.field("on")} />
      <Field label="With what" hint="the oil, the cleaner" {...form.field("used")} />
      <Choice label="What came off" {...form.choice("took_off")}>
        <Options of={WORDS.tookOff} />
      </Choice>
      <Field
        label="Due again after"
        unit="days"
        hint="empty for never"
        {...form.field("again_days")}
      />
      <Field label="Note" {...form.field("note")} />
      <FormFoot className="col-span-2" form={form} isSaving={save.isPending} onCancel={onDone}>
        Save
      </FormFoot>
    </form>
  );
}
