import { Link } from "react-router";
import type { Schemas } from "../../api/client";
import { folderAddress } from "../../api/folder";
import { Button, buttonLook } from "../../ui/Button";
import { Heading } from "../../ui/Section";
import { BladeRows } from "./BladeRows";
import { type Place, whereabouts } from "./place";

/** One batch: whose, where it is, and its blades with what their shots say. */
export function Parcel({
  batch,
  place,
  onChange,
}: {
  batch: Schemas["BatchOut"];
  place: Place;
  onChange: (id: string) => void;
}) {
  const ids = batch.blade_ids ?? [];
  const blades = ids.flatMap((id) => place.blades.filter((blade) => blade.id === id));
  return (
    <section aria-label={`Batch ${batch.name}`} className="mt-7">
      <header
        className={`flex flex-wrap items-baseline justify-between gap-x-6 border-t-[1.5px]
          border-ink pt-2`}
      >
        <Heading>
          {batch.name}
          <span className="ml-3 text-note font-normal text-ink-2">
            {[batch.owner, whereabouts(batch), batch.analyser, batch.operator]
              .filter(Boolean)
              .join(" · ")}
          </span>
        </Heading>
        <span className="flex flex-wrap gap-x-4">
          <Button kind="quiet" onClick={() => onChange(batch.id)}>
            Edit
          </Button>
          <Link className={buttonLook("quiet")} to={`/assay/batches/${batch.id}/sheet`}>
            Sheet to print
          </Link>
          <a
            className={buttonLook("quiet")}
            href={folderAddress(`/api/batches/${batch.id}/shots.csv`)}
            download
          >
            Shots
          </a>
          <a
            className={buttonLook("quiet")}
            href={folderAddress(`/api/batches/${batch.id}/sheet.xlsx`)}
            download
          >
            XLSX
          </a>
        </span>
      </header>
      {batch.note ? <p className="text-note text-ink-2">{batch.note}</p> : null}
      {batch.alloy_says ? (
        <p className={batch.alloy.some((each) => each.state === "off") ? "text-rust" : ""}>
          {batch.alloy_says}
        </p>
      ) : null}
      {blades.length ? (
        <BladeRows blades={blades} />
      ) : (
        <p className="text-ink-2">No blade in it yet.</p>
      )}
    </section>
  );
}
