import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useChange } from "../../api/changes";
import type { Schemas } from "../../api/client";
import { putExposure, strikeExposure } from "../../api/hanging";
import { exposuresQuery } from "../../api/queries";
import { newId } from "../../domain/ids";
import { WORDS } from "../../domain/words";
import { Button } from "../../ui/Button";
import { Choice, Options } from "../../ui/Choice";
import { DayField } from "../../ui/DayField";
import { Field } from "../../ui/Field";
import { FormFoot } from "../../ui/FormFoot";
import { Note } from "../../ui/Note";
import { useForm } from "../../ui/useForm";
import { NotedList } from "./NotedList";

/** Hours that a blade was wet without a soak, with what was seen after them. */
export function FieldExposures({ bladeId }: { bladeId: string }) {
  const found = useQuery(exposuresQuery(bladeId));
  const [adding, setAdding] = useState(false);
  if (!found.data) return null;
  return (
    <div className="mt-3">
      {found.data.length ? <Note className="font-medium">Wet without a soak</Note> : null}
      <NotedList noted={found.data} more={(each) => [each.on, each.note]} strike={strikeExposure} />
      {adding ? (
        <ExposureForm bladeId={bladeId} onDone={() => setAdding(false)} />
      ) : (
        <Button kind="quiet" className="px-0" onClick={() => setAdding(true)}>
          Add hours wet without a soak
        </Button>
      )}
    </div>
  );
}

const KINDS = {
  hours: { needed: "give the hours" },
  medium: "text",
  seen: { word: "fieldSeen" },
  on: "day",
  note: "text",
} as const;

function ExposureForm({ bladeId, onDone }: { bladeId: string; onDone: () => void }) {
  const [id] = useState(newId);
  const save = useChange(
    (body: Schemas["FieldExposureBody"]) => putExposure(bladeId, id, body),
    () => {
      form.drop();
      onDone();
    },
  );
  const form = useForm({
    draft: `exposure:${bladeId}`,
    kinds: KINDS,
    start: { hours: "", medium: "", seen: "", on: "", note: "" },
    error: save.error,
  });
  return (
    <form
      onSubmit={form.onSubmit((read) => save.mutate(read))}
      noValidate
      className="mt-2 grid grid-cols-2 gap-3"
    >
      <Field label="Wet for" unit="h" {...form.field("hours")} />
      <Field label="With what" hint="wet stone, rain, a dish sponge" {...form.field("medium")} />
      <Choice label="Seen after it" {...form.choice("seen")}>
        <Options of={WORDS.fieldSeen} />
      </Choice>
      <DayField label="Day" {...form.field("on")} />
      <Field label="Note" className="col-span-2" {...form.field("note")} />
      <FormFoot className="col-span-2" form={form} isSaving={save.isPending} onCancel={onDone}>
        Save
      </FormFoot>
    </form>
  );
}
