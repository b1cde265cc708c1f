import { Choice, Option } from "../../ui/Choice";
import { Tick } from "../../ui/Tick";
import { CHECKS, JUDGED, type MethodDraft, type StageDraft } from "./draft";

/** By which checks a pass/fail stage is lost: one alone, any of several, or all of them. */
export function StageChecks({
  stage,
  checks,
  onChange,
}: {
  stage: StageDraft;
  checks: MethodDraft["checks"];
  onChange: (part: Partial<StageDraft>) => void;
}) {
  const others = checks
    .map((check) => check.kind)
    .filter((kind) => JUDGED.includes(kind) && kind !== stage.check);
  const nameOf = (kind: string) => CHECKS.find(([each]) => each === kind)?.[1] ?? kind;
  const toggle = (kind: (typeof others)[number], on: boolean) =>
    onChange({ also: on ? [...stage.also, kind] : stage.also.filter((each) => each !== kind) });
  return (
    <div className="bench:pt-5">
      {stage.also.length === 0 ? (
        <Tick
          label="lost on a doubt already"
          checked={stage.onDoubt}
          onTick={(onDoubt) => onChange({ onDoubt })}
        />
      ) : null}
      {others.length > 0 ? (
        <details open={stage.also.length > 0}>
          <summary className="min-h-11 cursor-pointer content-center">by several checks</summary>
          {others.map((kind) => (
            <Tick
              key={kind}
              label={`and by “${nameOf(kind)}”`}
              checked={stage.also.includes(kind)}
              onTick={(on) => toggle(kind, on)}
            />
          ))}
        </details>
      ) : null}
      {stage.also.length > 0 ? (
        <Choice
          label="Lost when"
          value={stage.together}
          onPick={(together) => onChange({ together: together as StageDraft["together"] })}
        >
          <Option value="any">any of them fails</Option>
          <Option value="all">all of them fail at one count</Option>
        </Choice>
      ) : null}
    </div>
  );
}
