import { useState } from "react";
import type { Schemas } from "../../api/client";
import { type CheckRow, FORCE } from "../../domain/checks";
import { capital, counted, typedNumber } from "../../domain/format";
import { ReadingField } from "./BenchKeys";
import type { Log } from "./bench";
import type { Hand } from "./useHand";

type Run = Schemas["RunOut"];
const percent = (share: number) => `${Math.round(100 * share)} %`;

/**
 * After the stop: so many strokes on the strop, a reading, and what share of the loss came back.
 */
export function StropBack({
  run,
  hand,
  field,
  log,
  onVirtual,
}: {
  run: Run;
  hand: Hand;
  field: React.RefObject<HTMLInputElement | null>;
  log: Log;
  onVirtual: () => void;
}) {
  const [strokes, setStrokes] = useState("");
  const value = typedNumber(strokes);
  const fits = typeof value === "number" && Number.isInteger(value) && value >= 1 && value <= 1000;
  const byForce = run.method.check_rows.some((row) => row.key === FORCE.key);
  const waitsForReading = byForce && run.state.strokes > (run.strop_back.at(-1)?.strokes ?? 0);
  return (
    <section aria-label="Strop-back" className="mt-3">
      <form
        className="flex flex-wrap items-center gap-3"
        onSubmit={(e) => {
          e.preventDefault();
          if (fits) void log("strop", { strokes: value }).then(() => setStrokes(""));
        }}
      >
        <label className="flex items-center gap-2">
          {run.state.strokes ? "Stropped on," : "Strop the edge:"}
          <input
            value={strokes}
            onChange={(e) => setStrokes(e.target.value)}
            inputMode="numeric"
            aria-label="Strokes on the strop"
            aria-invalid={strokes !== "" && !fits}
            className={`h-16 w-24 rounded-edge border-[1.5px] border-line bg-transparent px-3
              text-[1.6rem] font-bold aria-invalid:border-rust`}
          />
          strokes
        </label>
        <button
          type="submit"
          disabled={!fits}
          className={`min-h-16 cursor-pointer rounded-edge border-[1.5px] border-line px-4
            font-semibold disabled:cursor-default disabled:opacity-45`}
        >
          Save strokes
        </button>
        {run.state.strokes && byForce ? (
          <>
            <ReadingField field={field} hand={hand} due={waitsForReading} />
            {run.is_virtual ? (
              <button
                type="button"
                onClick={onVirtual}
                className={`min-h-16 cursor-pointer rounded-edge border-[1.5px] border-line px-4
                  font-semibold`}
              >
                Read the virtual edge
              </button>
            ) : null}
          </>
        ) : null}
      </form>
      {hand.wrong ? <p className="mt-1 font-semibold text-rust">{hand.wrong}</p> : null}
      {run.state.strokes && waitsForReading ? (
        <p className="mt-2 text-ink-2">
          {counted(run.state.strokes)} strokes so far; wipe it and take a reading.
        </p>
      ) : null}
      {run.state.strokes
        ? run.method.check_rows
            .filter((row) => row.is_judged)
            .map((row) => <Tries key={row.key} row={row} log={log} />)
        : null}
      <ul className="mt-2">
        {run.abilities_back.map((words) => (
          <li key={words} data-testid="ability-back">
            {words}.
          </li>
        ))}
        {run.strop_back.map((s) => (
          <li key={s.strokes} data-testid="strop-back">
            After {counted(s.strokes)} strokes {Math.round(s.after_gf)} gf
            {s.share === null || s.low === null || s.high === null
              ? "; too little was lost to give a share"
              : `: ${percent(s.share)} of the loss is back (${percent(s.low)} to ` +
                `${percent(s.high)})`}
            .
          </li>
        ))}
      </ul>
    </section>
  );
}

/** What the edge does again after the strop, by one kind of look. */
function Tries({ row, log }: { row: CheckRow; log: Log }) {
  return (
    <fieldset className="mt-2 flex flex-wrap items-center gap-1.5">
      <legend className="float-left mr-2">{capital(row.label)}:</legend>
      {row.outcomes.map(({ key, label }) => (
        <button
          key={key}
          type="button"
          onClick={() => void log("outcome", { check: row.key, outcome: key, stage: "strop" })}
          className={`min-h-16 min-w-16 cursor-pointer rounded-edge border-[1.5px] border-line px-3
            font-semibold`}
        >
          {label}
        </button>
      ))}
    </fieldset>
  );
}
