import type { Schemas } from "../../api/client";
import { RatioAxis, RatioLane, ratioScale } from "../../charts/RatioLane";
import { Note } from "../../ui/Note";

const HEAD = 236;
const TAIL = 148;
const ROW = 40;

/** Grades, makers and the like: the mean of each with where another blade of it would lie. */
export function Groups({ board, width }: { board: Schemas["BoardOut"]; width: number }) {
  const isNarrow = width < 620;
  const lane = isNarrow ? width - 8 : Math.max(width - HEAD - TAIL, 120);
  const scale = ratioScale(board.groups, lane);
  if (board.groups.length === 0)
    return <p className="mt-4">No blade says yet to which it belongs; note it on the shelf.</p>;
  return (
    <div>
      <div style={{ marginLeft: isNarrow ? 0 : HEAD }}>
        <RatioAxis scale={scale} width={lane} />
      </div>
      <ol>
        {board.groups.map((group, at) => (
          <li key={group.name} className="flex flex-wrap items-center border-t border-line">
            <span
              className="pr-3 leading-tight"
              style={{ width: isNarrow ? width - TAIL - 8 : HEAD }}
            >
              <span className="font-bold">{group.name}</span>
              <span className="cond block truncate text-note text-ink-2">
                {group.arms
                  .map((arm) => board.rungs.find((rung) => rung.arm === arm)?.code)
                  .join(", ")}
              </span>
            </span>
            <RatioLane span={group} scale={scale} mark={at + 1} width={lane} height={ROW} />
            <span className="text-note text-ink-2" style={{ width: TAIL }}>
              {group.arms.length > 1
                ? `${group.lowest.toFixed(2)} to ${group.highest.toFixed(2)}`
                : "one blade"}
            </span>
          </li>
        ))}
      </ol>
      <Note className="mt-1 border-t border-line pt-1">
        Bars: where another blade of the same kind would lie, 95 in 100. On the right: from where to
        where its blades have run.
      </Note>
    </div>
  );
}
