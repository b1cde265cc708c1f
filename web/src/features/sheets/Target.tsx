import { useQuery } from "@tanstack/react-query";
import type { Schemas } from "../../api/client";
import { methodsQuery } from "../../api/queries";
import type { SheetAsked } from "../../api/record";
import { Choice, Option } from "../../ui/Choice";
import { Field } from "../../ui/Field";

const NEW = "new";

/** Where the runs go: an existing trial, or a new one, by its name and its school. */
export function Target({
  asked,
  seen,
  trials,
  onAsk,
}: {
  asked: SheetAsked;
  seen: Schemas["SheetPreviewOut"];
  trials: readonly Schemas["TrialTodayOut"][];
  onAsk: (change: Partial<SheetAsked>) => void;
}) {
  const methods = useQuery(methodsQuery);
  const isNew = !asked.trialId;
  return (
    <div className="mt-4 grid gap-3 bench:grid-cols-3">
      <Choice
        label="Into the trial"
        value={asked.trialId || NEW}
        onPick={(v) => onAsk({ trialId: v === NEW ? "" : v, reading: null })}
      >
        <Option value={NEW}>a new one</Option>
        {trials.map(({ trial }) => (
          <Option key={trial.id} value={trial.id}>
            {trial.name}
          </Option>
        ))}
      </Choice>
      {isNew ? (
        <>
          <Field
            label="Name of the trial"
            defaultValue={asked.name}
            placeholder={seen.name.replace(/\.\w+$/, "")}
            onBlur={(e) => (e.target.value === asked.name ? null : onAsk({ name: e.target.value }))}
          />
          <Choice
            label="Method"
            value={seen.school}
            onPick={(school) => onAsk({ school, reading: null })}
          >
            {(methods.data?.ready ?? []).map((m) => (
              <Option key={m.school} value={m.school}>
                {m.name}
              </Option>
            ))}
          </Choice>
        </>
      ) : null}
    </div>
  );
}
