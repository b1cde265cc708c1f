import type { Schemas } from "../../api/client";
import { Button } from "../../ui/Button";
import { Mark } from "../../ui/Mark";
import { deleteBlade, patchTrial, useLineUpChange } from "./changes";

/** What each mismatch does to the answer with the ways out of it, and what is still unknown. */
export function Consequences({ lineUp }: { lineUp: Schemas["LineUpOut"] }) {
  const { trial, cells, blades, variables, pending, runs } = lineUp;
  const change = useLineUpChange((act: () => Promise<unknown>) => act());
  const spoiled = cells.filter((c) => c.state === "confounded");
  return (
    <section aria-label="What this comparison can show">
      <h2 className="text-lead font-bold">What an answer may speak of: {lineUp.scope}</h2>
      {spoiled.map((cell) => {
        const blade = blades.find((b) => b.code === cell.blade);
        const variable = variables.find((v) => v.name === cell.variable);
        if (!blade || !variable) return null;
        const others = cells
          .filter((c) => c.variable === cell.variable && c.state === "matched" && c.value !== null)
          .map((c) => c.value ?? 0);
        const middle = others[Math.floor(others.length / 2)];
        const wider =
          cell.value !== null && middle !== undefined ? Math.ceil(Math.abs(cell.value - middle) * 100 + 1) / 100 : null;
        const isCut = runs.some((r) => r.blade_id === blade.id);
        return (
          <div key={`${cell.blade}-${cell.variable}`} className="mt-3 border-l-4 border-rust pl-4">
            <p className="flex items-center gap-2">
              <Mark place={blade.place} size={18} />
              <span>
                <b>{cell.blade}</b>: {cell.says}.
              </span>
            </p>
            <p className="mt-1 flex flex-wrap gap-x-5 gap-y-1 text-note">
              <span className="text-ink-2">Ways out: sharpen it anew to match,</span>
              {wider !== null ? (
                <WayOut
                  onClick={() =>
                    change.mutate(() =>
                      patchTrial(trial.id, { tolerances: { ...trial.tolerances, [variable.name]: wider } }),
                    )
                  }
                >
                  widen the tolerance to ±{wider} {variable.unit}
                </WayOut>
              ) : null}
              <WayOut
                onClick={() =>
                  change.mutate(() =>
                    patchTrial(trial.id, { factor: variable.factor as NonNullable<Schemas["TrialPatch"]["factor"]> }),
                  )
                }
              >
                declare it the factor
              </WayOut>
              {isCut ? null : (
                <WayOut onClick={() => change.mutate(() => deleteBlade(trial.id, blade.id))}>drop {blade.code}</WayOut>
              )}
            </p>
          </div>
        );
      })}
      {change.error ? (
        <p role="alert" className="mt-2 font-medium text-rust">
          {change.error.message}
        </p>
      ) : null}
      {pending.length ? (
        <div className="mt-4">
          <p className="font-semibold">Still open</p>
          <ul className="mt-1 text-ink-2">
            {pending.map((line) => (
              <li key={line} className="ruled mt-1 border-l-4 border-line py-0.5 pl-4">
                <span className="bg-paper pr-2">{line}</span>
              </li>
            ))}
          </ul>
          <p className="mt-2 text-note text-ink-2">
            None of this blocks the work. Until it is known the answer speaks of these blades only.
          </p>
        </div>
      ) : null}
      {spoiled.length === 0 && pending.length === 0 && blades.length > 1 ? (
        <p className="mt-2 text-ink-2">Nothing known stands in the way of a fair comparison.</p>
      ) : null}
      {Object.keys(trial.tolerances ?? {}).length ? (
        <p className="mt-4 text-note">
          Tolerances were changed for this trial.{" "}
          <Button
            kind="quiet"
            className="px-0"
            onClick={() => change.mutate(() => patchTrial(trial.id, { tolerances: {} }))}
          >
            Go back to the usual ones
          </Button>
        </p>
      ) : null}
    </section>
  );
}

function WayOut({ onClick, children }: { onClick: () => void; children: React.ReactNode }) {
  return (
    <button
      type="button"
      onClick={onClick}
      className="min-h-6 cursor-pointer font-semibold underline decoration-line underline-offset-4 hover:decoration-ink"
    >
      {children}
    </button>
  );
}
