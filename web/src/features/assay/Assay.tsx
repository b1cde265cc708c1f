import { useQuery } from "@tanstack/react-query";
import { Link, useSearchParams } from "react-router";
import { assaysQuery } from "../../api/queries";
import { Button, buttonLook } from "../../ui/Button";
import { Note } from "../../ui/Note";
import { Page } from "../../ui/Page";
import { Section } from "../../ui/Section";
import { Sheet } from "../../ui/Sheet";
import { Failed, Waiting } from "../../ui/State";
import { BatchForm } from "./BatchForm";
import { BladeRows } from "./BladeRows";
import { BringShots } from "./BringShots";
import { Parcel } from "./Parcel";
import { WaitingFiles } from "./WaitingFiles";

/** What steel it is, as far as anyone can tell: parcels of blades, each claim with its verdict. */
export function Assay() {
  const place = useQuery(assaysQuery);
  const [search, setSearch] = useSearchParams();
  if (place.isPending) return <Waiting what="the assay" />;
  if (place.isError) return <Failed error={place.error} onRetry={() => void place.refetch()} />;
  const { data } = place;
  const close = () => setSearch({});
  const batch = data.batches.find((b) => b.id === search.get("batch"));
  const placed = new Set(data.batches.flatMap((b) => b.blade_ids ?? []));
  const loose = data.blades.filter((blade) => !placed.has(blade.id));
  return (
    <Page>
      <div className="flex flex-wrap items-start justify-between gap-x-10 gap-y-4">
        <h1 className="answer max-w-4xl">{data.headline}</h1>
        <div className="flex flex-wrap gap-3">
          <Button onClick={() => setSearch({ bring: "shots" })}>Import shots</Button>
          <Button
            kind={data.batches.length ? "plain" : "next"}
            onClick={() => setSearch({ new: "batch" })}
          >
            New batch
          </Button>
        </div>
      </div>
      <Note className="mt-2 max-w-3xl">
        X-ray sources give ionising radiation: only licensed or trained hands, under local radiation
        rules, and never a sample held by hand. Claims are tried among {data.grades} grades.
      </Note>
      {data.waiting.length ? <WaitingFiles place={data} /> : null}
      {data.batches.map((each) => (
        <Parcel
          key={each.id}
          batch={each}
          place={data}
          onChange={(id) => setSearch({ batch: id })}
        />
      ))}
      {loose.length ? (
        <Section title="In no batch" className="mt-8">
          <BladeRows blades={loose} />
        </Section>
      ) : null}
      {data.blades.length === 0 && data.batches.length === 0 ? <Empty /> : null}
      <nav aria-label="About the assay" className="mt-9 flex flex-wrap gap-3 pb-6">
        <Link className={buttonLook("quiet")} to="/grades-alike">
          Grades XRF cannot separate
        </Link>
        <Link className={buttonLook("quiet")} to="/assay/claims">
          Compare two makers' sheets
        </Link>
        <Link className={buttonLook("quiet")} to="/assay/performance">
          Composition against lives
        </Link>
        <Link className={buttonLook("quiet")} to="/assay/standing">
          Why a sheet is not a measurement
        </Link>
      </nav>
      <Sheet
        open={search.get("new") === "batch" || batch !== undefined}
        onOpenChange={(o) => (o ? null : close())}
        title={batch ? "Edit batch" : "New batch"}
        note="Blades that go to the analyser together."
      >
        <BatchForm batch={batch} onDone={close} />
      </Sheet>
      <Sheet
        open={search.get("bring") === "shots"}
        onOpenChange={(o) => (o ? null : close())}
        title="Import shots"
        note="A blade that is not on the shelf yet is added to it."
      >
        <BringShots batches={data.batches} />
      </Sheet>
    </Page>
  );
}

function Empty() {
  return (
    <p className="mt-8 max-w-2xl text-ink-2">
      Make a batch of the blades you send to someone with an analyser, or import a file of shots.
      Each claim then gets a verdict: consistent, undecidable or excluded.
    </p>
  );
}
