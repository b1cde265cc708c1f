import { putEdge, useChange } from "../api/changes";
import type { Schemas } from "../api/client";
import { shownNumber } from "../domain/typed";
import { WORDS } from "../domain/words";
import { Choice, Options } from "../ui/Choice";
import { DayField } from "../ui/DayField";
import { Field, LongField } from "../ui/Field";
import { Notice } from "../ui/Notice";
import { useForm } from "../ui/useForm";

type Edge = Schemas["EdgeOut"];

const KINDS = {
  minutes: "number",
  steel_removed_mm: "number",
  arm: "text",
  trouble: "text",
  note: "text",
  made_on: "day",
} as const;

/** What was noted at a sharpening; it is saved when its last field is left. */
export function EdgeChecks({ bladeId, edge }: { bladeId: string; edge: Edge }) {
  const save = useChange((body: Schemas["EdgeBody"]) => putEdge(bladeId, body));
  const form = useForm({
    draft: `checks:${edge.id}`,
    kinds: KINDS,
    start: {
      minutes: shownNumber(edge.minutes),
      steel_removed_mm: shownNumber(edge.steel_removed_mm),
      arm: edge.arm,
      trouble: edge.trouble,
      note: edge.note,
      made_on: edge.made_on,
    },
    error: save.error,
  });
  const keep = () => {
    const read = form.isChanged ? form.read() : null;
    if (read) save.mutate({ id: edge.id, ...read }, { onSuccess: form.drop });
  };
  return (
    <section aria-label="Notes of the sharpening" className="grid grid-cols-2 gap-3" onBlur={keep}>
      <Choice
        label="Burr"
        value={edge.burr_check}
        onPick={(picked) => save.mutate({ id: edge.id, burr_check: picked as Edge["burr_check"] })}
      >
        <Options of={WORDS.burrChecks} />
      </Choice>
      <Choice
        label="Under the lamp"
        value={edge.lamp_check}
        onPick={(picked) =>
          save.mutate({
            id: edge.id,
            lamp_check: picked as Edge["lamp_check"],
          })
        }
      >
        <Options of={WORDS.lampChecks} />
      </Choice>
      <Field label="Minutes" {...form.field("minutes")} />
      <Field label="Steel removed" unit="mm of height" {...form.field("steel_removed_mm")} />
      <DayField label="Made on" {...form.field("made_on")} />
      <Field
        label="Trouble"
        {...form.field("trouble")}
        hint="burr that would not leave, steps repeated"
      />
      <Field
        className="col-span-2"
        label="Prepared as"
        term="arm"
        {...form.field("arm")}
        hint="Where a trial compares several preparations of this blade, such as coarse"
      />
      <LongField label="Note" className="col-span-2" {...form.field("note")} />
      <Notice says={form.notice} className="col-span-2" />
      {edge.lamp_check === "glints" || edge.burr_check === "traces" ? (
        <p className="col-span-2 border-l-4 border-glint pl-3 text-note">
          {edge.lamp_check === "glints"
            ? "Something glints: the apex is not closed there, or a burr is folded over. A run " +
              "from here measures that."
            : "A burr that is left reads sharp at first and falls off in the first cuts."}
        </p>
      ) : null}
    </section>
  );
}
