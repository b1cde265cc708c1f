import { FORCE } from "../../domain/checks";
import { CHECKS } from "../../domain/words.gen";
import { Choice, Option } from "../../ui/Choice";
import { Field } from "../../ui/Field";
import { checkOf, gradesOf, type MethodDraft, type StageDraft } from "./draft";
import { cellOf, type PartProps } from "./fields";
import { Part } from "./Part";
import { Rows } from "./Rows";
import { StageChecks } from "./StageChecks";

/** The stages of a method, in the order they are lost. */
export function StagesPart({ draft: d, onChange, at }: PartProps) {
  const blank: StageDraft = {
    name: "",
    check: d.checks[0]?.kind ?? FORCE.key,
    limit: "",
    lostFrom: "",
    onDoubt: false,
    also: [],
    together: "any",
  };
  return (
    <Part title="Stages, in the order they are lost" term="stage">
      <Rows
        error={at("stages") ?? at("keen_gf") ?? at("dull_gf")}
        rows={d.stages}
        blank={blank}
        add="Add a stage"
        onChange={(stages) => onChange({ ...d, stages })}
      >
        {(stage, change) => (
          <>
            <Field label="Stage" {...cellOf(stage, change, "name")} />
            <Choice
              label="decided by"
              value={stage.check}
              onPick={(check) => change({ check, lostFrom: "", limit: "" })}
            >
              {deciding(d).map(([key, name]) => (
                <Option key={key} value={key}>
                  {name}
                </Option>
              ))}
            </Choice>
            <LostWhen d={d} stage={stage} change={change} />
          </>
        )}
      </Rows>
    </Part>
  );
}

/** The checks of a method that a stage can go by. */
const deciding = (d: MethodDraft): Array<[key: string, name: string]> =>
  d.checks
    .filter(({ kind, own }) =>
      own ? kind.trim() : CHECKS.some((row) => row.key === kind && row.decides_stage),
    )
    .map(({ kind, own }) => [
      kind,
      own ? kind : (CHECKS.find((row) => row.key === kind)?.name ?? kind),
    ]);

/** By what the stage is lost: a limit, a grade, or a fail. */
function LostWhen({
  d,
  stage,
  change,
}: {
  d: MethodDraft;
  stage: StageDraft;
  change: (part: Partial<StageDraft>) => void;
}) {
  const own = checkOf(d, stage)?.own;
  if (stage.check === FORCE.key || own?.result === "number") {
    const isBelow = own?.sharpIs === "high";
    return (
      <Field
        label={isBelow ? "Lost below" : "Lost above"}
        unit={own ? own.unit : FORCE.unit}
        inputMode="decimal"
        {...cellOf(stage, change, "limit")}
      />
    );
  }
  if (own?.result === "scale")
    return (
      <Choice
        label="Lost from"
        value={stage.lostFrom}
        onPick={(lostFrom) => change({ lostFrom })}
        hint="at this grade and every duller one"
      >
        <Option value="">choose</Option>
        {gradesOf(own)
          .slice(1)
          .map((grade) => (
            <Option key={grade} value={grade}>
              {grade}
            </Option>
          ))}
      </Choice>
    );
  return <StageChecks stage={stage} checks={d.checks} onChange={change} />;
}
