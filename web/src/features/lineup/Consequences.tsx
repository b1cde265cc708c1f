import { Link } from "react-router";
import { useChange } from "../../api/changes";
import type { Schemas } from "../../api/client";
import { useTrialPatch } from "../../parts/useTrialPatch";
import { Button } from "../../ui/Button";
import { Mark } from "../../ui/Mark";
import { Note } from "../../ui/Note";
import { Notice } from "../../ui/Notice";
import { Section } from "../../ui/Section";
import { dropBlade } from "./changes";

/** What each mismatch does to the answer with the ways out of it, and what is still unknown. */
export function Consequences({ lineUp }: { lineUp: Schemas["LineUpOut"] }) {
  const { trial, mismatches, blades, pending } = lineUp;
  const change = useChange((act: () => Promise<unknown>) => act());
  const patched = useTrialPatch(trial);
  return (
    <Section title={`The answer holds for: ${lineUp.scope}`}>
      {mismatches.map((found) => {
        const blade = blades.find((b) => b.code === found.blade);
        if (!blade) return null;
        return (
          <div
            key={`${found.blade}-${found.variable}`}
            className="mt-3 border-l-4 border-rust pl-4"
          >
            <p className="flex items-center gap-2">
              <Mark mark={blade.mark} size={18} />
              <span>
                <b>{found.blade}</b>: {found.says}.
              </span>
            </p>
            <p className="mt-1 flex flex-wrap items-baseline gap-x-5 gap-y-1 text-note">
              <span className="text-ink-2">What to do:</span>
              {found.ways_out.map((way) => (
                <WayOut
                  key={way.kind}
                  way={way}
                  trialId={trial.id}
                  onTake={(patch) =>
                    patch
                      ? patched.change(patch)
                      : change.mutate(() => dropBlade(trial.id, blade.id))
                  }
                />
              ))}
            </p>
          </div>
        );
      })}
      <Notice
        says={change.error || patched.error ? (change.error ?? patched.error)?.message : undefined}
        className="mt-2 font-medium"
      />
      {pending.length ? (
        <div className="mt-4">
          <p className="font-semibold">Not known yet</p>
          <ul className="mt-1 text-ink-2">
            {pending.map((line) => (
              <li key={line} className="ruled mt-1 border-l-4 border-line py-0.5 pl-4">
                <span className="bg-paper pr-2">{line}</span>
              </li>
            ))}
          </ul>
          <Note className="mt-2">
            You can start without them. Until they are known, the answer holds for these blades
            only.
          </Note>
        </div>
      ) : null}
      {mismatches.length === 0 && pending.length === 0 && blades.length > 1 ? (
        <p className="mt-2 text-ink-2">The comparison is fair as far as is known.</p>
      ) : null}
      <Held lineUp={lineUp} onChange={patched.change} />
      {Object.keys(trial.tolerances ?? {}).length ? (
        <p className="mt-4 text-note">
          Tolerances were changed for this trial.{" "}
          <Button kind="quiet" className="px-0" onClick={() => patched.change({ tolerances: {} })}>
            Restore the usual tolerances
          </Button>
        </p>
      ) : null}
    </Section>
  );
}

/**
 * What is taken as equal by word only, what is knowingly let go, and which references are missing.
 */
function Held({
  lineUp,
  onChange,
}: {
  lineUp: Schemas["LineUpOut"];
  onChange: (patch: Schemas["TrialPatch"]) => void;
}) {
  const { variables } = lineUp;
  const loose = variables.filter((v) => !v.held);
  return (
    <>
      {lineUp.taken_as_equal.length ? (
        <Note className="mt-4">
          Not recorded for any blade, so taken as equal: {lineUp.taken_as_equal.join(", ")}.
        </Note>
      ) : null}
      {loose.length ? (
        <p className="mt-4 flex flex-wrap gap-x-5 text-note">
          <span>Accepted as different: {loose.map((v) => v.label).join(", ")}.</span>
          <Way onClick={() => onChange({ let_go: [] })}>Hold all of them equal again</Way>
        </p>
      ) : null}
      {lineUp.references.map((words) => (
        <Note key={words} className="mt-2">
          {words} You can go without one; the result then has no place on a scale.
        </Note>
      ))}
    </>
  );
}

const WAY =
  "min-h-6 font-semibold underline decoration-line underline-offset-4 hover:decoration-ink";

/** One way out: a place to go to, or a change that is made at once. */
function WayOut({
  way,
  trialId,
  onTake,
}: {
  way: Schemas["RemedyOut"];
  trialId: string;
  onTake: (patch: Schemas["TrialPatch"] | null) => void;
}) {
  if (!way.change && way.kind !== "drop")
    return (
      <Link className={WAY} to={`/trials/${trialId}/prepare`}>
        {way.says}
      </Link>
    );
  return <Way onClick={() => onTake(way.change)}>{way.says}</Way>;
}

function Way({ onClick, children }: { onClick: () => void; children: React.ReactNode }) {
  return (
    <button type="button" onClick={onClick} className={`${WAY} cursor-pointer`}>
      {children}
    </button>
  );
}
