import { WORDS } from "../../domain/words";
import { Choice, Option, Options } from "../../ui/Choice";
import { Field } from "../../ui/Field";
import type { MethodDraft, StopKind } from "./draft";
import { cellOf, type PartProps } from "./fields";
import { Part } from "./Part";
import { Rows } from "./Rows";

type EndDraft = MethodDraft["ends"][number];
const BLANK: EndDraft = { kind: "dose", stage: "", confirm: "none", amount: "" };

/** What ends a run. */
export function EndsPart({ draft: d, onChange, at }: PartProps) {
  return (
    <Part title="End of a run">
      <Rows
        error={at("ends")}
        rows={d.ends}
        blank={BLANK}
        add="Add another end"
        onChange={(ends) => onChange({ ...d, ends })}
      >
        {(rule, change) => (
          <>
            <Choice
              label="Rule"
              value={rule.kind}
              onPick={(picked) => change({ kind: picked as StopKind })}
            >
              <Options of={WORDS.stops} />
            </Choice>
            {rule.kind === "limit" ? <LimitRule d={d} rule={rule} change={change} /> : null}
            {rule.kind === "dose" || rule.kind === "cycles" ? (
              <Field
                label={rule.kind === "dose" ? "Amount" : "Rounds"}
                unit={rule.kind === "dose" ? d.unit : ""}
                inputMode="decimal"
                {...cellOf(rule, change, "amount")}
              />
            ) : null}
          </>
        )}
      </Rows>
    </Part>
  );
}

function LimitRule({
  d,
  rule,
  change,
}: {
  d: MethodDraft;
  rule: EndDraft;
  change: (part: Partial<EndDraft>) => void;
}) {
  return (
    <>
      <Choice label="Stage" value={rule.stage} onPick={(stage) => change({ stage })}>
        <Option value="">choose</Option>
        {d.stages.map(({ name }) => (
          <Option key={name} value={name}>
            {name}
          </Option>
        ))}
      </Choice>
      <Choice
        label="Confirmed by"
        value={rule.confirm}
        onPick={(picked) => change({ confirm: picked as EndDraft["confirm"] })}
      >
        <Options of={WORDS.confirmations} />
      </Choice>
    </>
  );
}
