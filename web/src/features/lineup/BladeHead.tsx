import { Link } from "react-router";
import type { Schemas } from "../../api/client";
import { plural } from "../../domain/format";
import { Mark } from "../../ui/Mark";

const SMALL = "cond block min-h-6 text-note underline underline-offset-2";

/** Head of a blade's row: its mark and code, and the way to its run or to the next one. */
export function BladeHead({
  blade,
  runs,
  onStart,
}: {
  blade: Schemas["LineUpOut"]["blades"][number];
  runs: Schemas["LineUpOut"]["runs"];
  onStart: (armId: string) => void;
}) {
  const cut = runs.filter((run) => run.arm_id === blade.arm_id && !run.practice);
  const live = cut.find((run) => ["cutting", "fresh", "paused"].includes(run.status));
  return (
    <>
      <Mark mark={blade.mark} size={26} />
      <div className="w-24 shrink-0 leading-tight">
        <Link
          to={`/blades/${blade.id}`}
          className={`block min-h-6 text-lead font-bold underline
            decoration-transparent underline-offset-4 hover:decoration-ink`}
        >
          {blade.code}
        </Link>
        {blade.arm ? (
          <span className="cond block text-note text-ink-2">on {blade.own_code}</span>
        ) : null}
        {live ? (
          <Link className={`${SMALL} font-semibold text-next`} to={`/runs/${live.id}`}>
            at {live.count} on edge {live.edge}
          </Link>
        ) : (
          <button
            type="button"
            onClick={() => onStart(blade.arm_id)}
            className={`${SMALL} cursor-pointer text-left text-ink-2`}
          >
            {cut.length
              ? `${plural(cut.length, "edge")} cut, start another`
              : "start its first run"}
          </button>
        )}
      </div>
    </>
  );
}
