import { Link } from "react-router";
import type { Schemas } from "../../api/client";
import { Button, buttonLook } from "../../ui/Button";
import { Note } from "../../ui/Note";
import { ImportFiles } from "./ImportFiles";

const SHOWN = 12;

/** Results that exist already: any file leads to the reader that fits it, paper to its trial. */
export function EnterResults({
  trials,
  archived,
  onNew,
}: {
  trials: readonly Schemas["TrialTodayOut"][];
  archived: Schemas["TodayOut"]["archived"];
  onNew: () => void;
}) {
  const open = trials.filter(({ trial }) => !archived[trial.id]);
  return (
    <div className="flex flex-col gap-7">
      <section aria-label="From files">
        <h3 className="text-lead font-bold">From files</h3>
        <Note className="mb-3">
          A spreadsheet of results (CSV, TSV or XLSX), or series files with the runs, blades and
          edges files beside them.
        </Note>
        <ImportFiles />
        <Link className={`${buttonLook("quiet")} mt-2 px-0`} to="/sheets">
          Paste cells of a spreadsheet
        </Link>
        <Link className={`${buttonLook("quiet")} mt-2 px-0`} to="/share">
          Package of another tester
        </Link>
      </section>
      <section aria-label="From paper">
        <h3 className="text-lead font-bold">From paper</h3>
        {open.length === 0 ? (
          <Note>Results on paper belong to a trial. Set up the trial first.</Note>
        ) : (
          <ul>
            {open.slice(0, SHOWN).map(({ trial }) => (
              <li key={trial.id} className="border-b border-line">
                <Link
                  className="flex min-h-11 items-center underline underline-offset-4"
                  to={`/trials/${trial.id}/paper`}
                >
                  Enter paper results into {trial.name}
                </Link>
              </li>
            ))}
          </ul>
        )}
        <Button className="mt-3" onClick={onNew}>
          New trial for paper results
        </Button>
      </section>
    </div>
  );
}
