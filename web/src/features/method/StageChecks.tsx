import { WORDS } from "../../domain/words";
import { CHECKS } from "../../domain/words.gen";
import { Choice, Options } from "../../ui/Choice";
import { Tick } from "../../ui/Tick";
import type { CheckDraft, MethodDraft, StageDraft } from "./draft";

const passesOrFails = ({ kind, own }: CheckDraft) =>
  own ? own.result === "pass_fail" : CHECKS.some((row) => row.key === kind && row.passes_or_fails);

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
    .filter((check) => passesOrFails(check) && check.kind !== stage.check)
    .map((check) => check.kind);
  const nameOf = (kind: string) => CHECKS.find((row) => row.key === kind)?.name ?? kind;
  const toggle = (kind: string, on: boolean) =>
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
          <Options of={WORDS.together} />
        </Choice>
      ) : null}
    </div>
  );
}
