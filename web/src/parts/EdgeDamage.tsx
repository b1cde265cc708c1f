import { putEdge, useChange } from "../api/changes";
import type { Schemas } from "../api/client";
import { WORDS } from "../domain/words";
import { Button } from "../ui/Button";
import { Choice, Options } from "../ui/Choice";
import { Field } from "../ui/Field";
import { Notice } from "../ui/Notice";
import { TextButton } from "../ui/TextButton";
import { useForm } from "../ui/useForm";

const KINDS = { kind: { word: "damages" }, position_mm: { needed: "say where" } } as const;

/** What was seen on an edge, and where. */
export function EdgeDamage({ bladeId, edge }: { bladeId: string; edge: Schemas["EdgeOut"] }) {
  const save = useChange(
    (body: Schemas["EdgeBody"]) => putEdge(bladeId, body),
    () => {
      form.drop();
    },
  );
  const form = useForm({
    draft: `damage:${edge.id}`,
    kinds: KINDS,
    start: { kind: "glint", position_mm: "" },
    error: save.error,
  });
  return (
    <section aria-label="Seen on the edge">
      <h3 className="font-semibold">Damage on this edge</h3>
      <ul>
        {edge.damage.map((d, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: two marks may stand at one place
          <li key={i} className="flex items-center gap-3">
            {d.kind} at {d.position_mm} mm
            <TextButton
              small
              onClick={() =>
                save.mutate({ id: edge.id, damage: edge.damage.filter((_, other) => other !== i) })
              }
            >
              undo
            </TextButton>
          </li>
        ))}
      </ul>
      <form
        className="mt-1 grid grid-cols-2 items-end gap-2 bench:grid-cols-[8rem_9rem_auto]"
        noValidate
        onSubmit={form.onSubmit((read) =>
          save.mutate({ id: edge.id, damage: [...edge.damage, read] }),
        )}
      >
        <Choice label="Damage" {...form.choice("kind")}>
          <Options of={WORDS.damages} />
        </Choice>
        <Field label="where" unit="mm from the heel" {...form.field("position_mm", "damage")} />
        <Button type="submit">Add damage</Button>
      </form>
      <Notice says={form.notice} />
    </section>
  );
}
