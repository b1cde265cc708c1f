import { useState } from "react";
import { Link } from "react-router";
import { useChange } from "../../api/changes";
import type { Schemas } from "../../api/client";
import { bringSheetIn, type SheetAsked } from "../../api/record";
import { plural } from "../../domain/format";
import { newId } from "../../domain/ids";
import { Faults } from "../../parts/Faults";
import { ImportProgress } from "../../parts/ImportProgress";
import { Button, buttonLook } from "../../ui/Button";
import { Field } from "../../ui/Field";
import { Note } from "../../ui/Note";
import { Tick } from "../../ui/Tick";
import { Toggles } from "../../ui/Toggles";
import { useUndo } from "../../ui/Undo";

type Seen = Schemas["SheetPreviewOut"];

/** All of it in, or nothing: what is imported already is skipped or replaced, as chosen. */
export function BringIn({ asked, seen }: { asked: SheetAsked; seen: Seen }) {
  const say = useUndo();
  const [how, setHow] = useState({
    on_there: "skip" as "skip" | "replace",
    by: "",
    name: "",
    gapUnknown: false,
  });
  const [id, setId] = useState(newId);
  const bring = useChange(
    (import_id: string) =>
      bringSheetIn(asked, {
        on_there: how.on_there,
        by: how.by,
        reading_name: how.name,
        import_id,
      }).finally(() => setId(newId())),
    undefined,
    () => {
      bring.reset();
      say("Undone: the runs are in the bin.");
    },
  );
  const runs = seen.new + (how.on_there === "replace" ? seen.there : 0);
  const [asksGap, setAsksGap] = useState(false);
  const wantsGap = seen.totals_without_gap > 0 && !how.gapUnknown;
  const press = () => {
    setAsksGap(wantsGap);
    if (!wantsGap && !bring.isPending) bring.mutate(id);
  };
  if (bring.data) return <Made made={bring.data.made} />;
  return (
    <section aria-label="Save" className="mt-6 border-t-[1.5px] border-ink pt-4">
      <div className="flex flex-wrap items-start gap-4">
        {seen.there ? (
          <div>
            <Note className="font-medium">Runs that are imported already</Note>
            <Toggles
              says="Runs that are imported already"
              value={how.on_there}
              onPick={(on_there) => setHow({ ...how, on_there })}
              choices={[
                ["skip", "skip"],
                ["replace", "replace"],
              ]}
            />
          </div>
        ) : null}
        <Field
          label="Cut by"
          value={how.by}
          onChange={(e) => setHow({ ...how, by: e.target.value })}
        />
        <Field
          label="Save these columns as"
          hint="used again for sheets with the same heads"
          value={how.name}
          onChange={(e) => setHow({ ...how, name: e.target.value })}
        />
        <Button
          kind="next"
          className="mt-6"
          disabled={runs === 0 || seen.fault_count > 0}
          onClick={press}
        >
          {bring.isPending ? "Saving …" : `Save ${plural(runs, "run")}`}
        </Button>
      </div>
      {seen.totals_without_gap ? (
        <div className="mt-3">
          <Tick
            label={`The gap of the checks is not known for ${plural(seen.totals_without_gap, "run")}`}
            checked={how.gapUnknown}
            onTick={(gapUnknown) => setHow({ ...how, gapUnknown })}
          />
          {asksGap && wantsGap ? (
            <p role="alert" className="font-medium text-rust">
              How often did you check? Give the gap under “Checked every” above, or tick that it is
              not known: the totals are then used as written.
            </p>
          ) : null}
        </div>
      ) : null}
      {bring.isPending ? <ImportProgress id={id} /> : null}
      {bring.error ? <Faults error={bring.error} /> : null}
    </section>
  );
}

function Made({ made }: { made: Schemas["BroughtOut"] }) {
  const aside = [
    made.new_blades.length ? `new on the shelf: ${made.new_blades.join(", ")}` : "",
    made.skipped ? `${made.skipped} imported before, not changed` : "",
    made.replaced ? `${made.replaced} were replaced; the old ones are in the bin` : "",
  ].filter(Boolean);
  return (
    <div role="status" className="mt-6 border-t-[1.5px] border-ink pt-4">
      <p className="text-lead">
        {plural(made.kept, "run")} saved in {made.trial_name}
        {made.blades.length ? `, of ${made.blades.join(", ")}` : ""}
        {aside.length ? `; ${aside.join("; ")}` : ""}.
      </p>
      <p className="mt-3 flex flex-wrap gap-3">
        <Link className={buttonLook("next")} to={`/trials/${made.trial_id}/verdict`}>
          Read the verdict
        </Link>
        <Link className={buttonLook()} to={`/trials/${made.trial_id}/line-up`}>
          Open the line-up
        </Link>
      </p>
    </div>
  );
}
