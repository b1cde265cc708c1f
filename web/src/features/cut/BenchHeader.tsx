import { Link } from "react-router";
import type { Schemas } from "../../api/client";
import { Mark } from "../../ui/Mark";
import type { Waiting } from "./bench";
import { Connection } from "./Connection";

/** Whose edge is cut, whether the server hears it, and the way out. */
export function BenchHeader({
  run,
  waiting,
  clockOffMin,
}: {
  run: Schemas["RunOut"];
  waiting: Waiting;
  clockOffMin: number;
}) {
  return (
    <header className="flex items-center justify-between gap-4">
      <div className="flex min-w-0 items-center gap-3">
        {run.blade.mark === null ? null : <Mark mark={run.blade.mark} size={30} />}
        <span className="wide shrink-0 text-lead font-extrabold whitespace-nowrap">
          {run.blade.code}
        </span>
        <span className="truncate text-ink-2">
          edge {run.edge}
          {run.after_strop_of ? ", stropped back" : ""}
          <span className="max-bench:hidden"> · {run.trial.name}</span>
        </span>
        {run.practice ? (
          <span
            className={`shrink-0 rounded-edge border-[1.5px] border-glint px-2 font-bold
            text-glint-ink`}
          >
            practice
          </span>
        ) : null}
      </div>
      <div className="flex items-center justify-end gap-4 text-note text-ink-2 bench:shrink-0">
        <Connection
          away={waiting.away}
          why={waiting.why}
          waiting={waiting.pending.filter((e) => e.device_sequence > 0).length}
          clockOffMin={clockOffMin}
        />
        <Link
          className="flex min-h-11 shrink-0 items-center underline underline-offset-4"
          to={`/trials/${run.trial.id}/line-up`}
        >
          Leave the bench
        </Link>
      </div>
    </header>
  );
}
