import { counted } from "../../domain/format";
import { HandAndStock } from "./Beside";
import type { Run } from "./bench";
import { countSize } from "./benchWords";
import type { Shown } from "./projection";

/** The count, as large as fits; a tap on it counts one more. */
export function CountFace({
  run,
  shown,
  ended,
  width,
  onCut,
}: {
  run: Run;
  shown: Shown;
  ended: boolean;
  width: number;
  onCut: () => void;
}) {
  const step = run.card.recipe.find((each) => shown.count < each.ends_at);
  const unit = step ? "in all" : run.count_unit;
  return (
    <>
      <button
        type="button"
        onClick={ended ? undefined : onCut}
        disabled={ended}
        tabIndex={-1}
        aria-label={`${counted(shown.count)} ${unit}. Tap to count one more`}
        data-testid="count"
        className={`block w-full cursor-pointer text-left leading-[0.8] font-[840]
          tracking-[-0.035em] disabled:cursor-default`}
        style={{
          fontSize: countSize(counted(shown.count), width),
          fontStretch: "112%",
          minHeight: 160,
          paddingTop: "0.1em",
        }}
      >
        {counted(shown.count)}
      </button>
      <div className="mt-3 flex flex-wrap items-baseline gap-x-4 text-lead text-ink-2">
        <span>{unit}</span>
        {step ? (
          <span className="font-semibold text-ink">
            {step.medium}: {counted(shown.count - step.begins_at)} of{" "}
            {counted(step.ends_at - step.begins_at)} {step.unit}
          </span>
        ) : null}
        {ended ? null : <HandAndStock run={run} shown={shown} />}
      </div>
    </>
  );
}
