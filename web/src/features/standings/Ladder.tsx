import type { Schemas } from "../../api/client";
import { EdgeStrip } from "../../charts/EdgeStrip";
import { RatioAxis, RatioLane, ratioScale } from "../../charts/RatioLane";
import { Note } from "../../ui/Note";
import { isTied, type Rung } from "./question";
import { RungDetails } from "./RungDetails";

type Board = Schemas["BoardOut"];

const ROW = 40;
const HEAD = 236;
const TAIL = 148;

/** All blades of an island, the longest life on top; a press opens what a place rests on. */
export function Ladder({
  board,
  rungs,
  chosen,
  kept,
  width,
  onChoose,
  onKeep,
  onAsk,
}: {
  board: Board;
  rungs: readonly Rung[];
  chosen: string;
  kept: readonly string[];
  width: number;
  onChoose: (arm: string) => void;
  onKeep: (arm: string) => void;
  onAsk: (change: Record<string, string>) => void;
}) {
  const isNarrow = width < 620;
  const lane = isNarrow ? width - 8 : Math.max(width - HEAD - TAIL, 120);
  const scale = ratioScale(rungs, lane);
  const picked = rungs.find((rung) => rung.arm === chosen);
  const reference = rungs.find(
    (rung) => rung.arm === board.islands[rungs[0]?.island ?? 0]?.reference,
  );
  return (
    <div>
      <div className="flex items-center" style={{ marginLeft: isNarrow ? 0 : HEAD }}>
        <RatioAxis scale={scale} width={lane} />
        {isNarrow ? null : <span className="text-note text-ink-2">place</span>}
      </div>
      <ol>
        {rungs.map((rung) => (
          <li key={rung.arm} className="border-t border-line">
            <button
              type="button"
              aria-expanded={rung.arm === chosen}
              aria-label={`${rung.code}, ${rung.grade}: ${rung.place}, ${rung.says}`}
              className={`flex w-full cursor-pointer flex-wrap items-center text-left
                ${rung.arm === chosen ? "bg-sheet" : ""}`}
              onClick={() => onChoose(rung.arm === chosen ? "" : rung.arm)}
            >
              <RungHead
                rung={rung}
                isKept={kept.includes(rung.arm)}
                width={isNarrow ? width - TAIL - 8 : HEAD}
              />
              {isNarrow ? <RungTail rung={rung} /> : null}
              <RatioLane
                span={rung}
                scale={scale}
                mark={rung.mark}
                width={lane}
                height={ROW}
                faint={Boolean(picked && !isTied(picked, rung) && picked.island === rung.island)}
              />
              {isNarrow ? null : <RungTail rung={rung} />}
            </button>
            {rung.arm === chosen ? (
              <RungDetails
                board={board}
                rung={rung}
                isKept={kept.includes(rung.arm)}
                onKeep={onKeep}
                onAsk={onAsk}
              />
            ) : null}
          </li>
        ))}
      </ol>
      <Note className="mt-1 border-t border-line pt-1">
        Life as a multiple of {reference?.code ?? "the reference"}’s, with 95 % intervals.
        {picked ? " Faint rows surely stand above or below the open one." : ""}
      </Note>
    </div>
  );
}

function RungHead({ rung, isKept, width }: { rung: Rung; isKept: boolean; width: number }) {
  return (
    <span className="flex items-center gap-2" style={{ width }}>
      <EdgeStrip
        mark={rung.mark}
        title={rung.code}
        edgeLengthMm={rung.edge_length_mm}
        edges={[]}
        width={Math.min(104, 0.45 * width)}
        slim
      />
      <span className="min-w-0 flex-1 leading-tight">
        <span className="font-bold">
          {rung.code}
          {isKept ? " ↑" : ""}
        </span>
        <span className="cond block truncate text-note text-ink-2">
          {[rung.grade, rung.archived ? "archived" : ""].filter(Boolean).join(", ") ||
            "grade not named"}
        </span>
      </span>
    </span>
  );
}

function RungTail({ rung }: { rung: Rung }) {
  const warns = rung.marks.length > 0 || rung.off_group !== "";
  return (
    <span className="leading-tight" style={{ width: TAIL }}>
      <span className="font-semibold tabular-nums">
        {rung.best === rung.worst ? rung.best : `${rung.best} to ${rung.worst}`}
      </span>
      {warns ? <span className="ml-2 font-bold text-rust">!</span> : null}
      <span className="block text-note text-ink-2">{rung.says}</span>
    </span>
  );
}
