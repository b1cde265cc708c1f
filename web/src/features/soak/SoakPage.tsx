import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { useChange } from "../../api/changes";
import { folderAddress } from "../../api/folder";
import { soakQuery } from "../../api/queries";
import { importLooks, startSoak } from "../../api/soaks";
import { SoakRuler } from "../../charts/SoakRuler";
import { isMoment, momentOf } from "../../domain/days";
import { plural, unbroken } from "../../domain/format";
import { Faults } from "../../parts/Faults";
import { TakeAway } from "../../parts/TakeAway";
import { Button, buttonLook } from "../../ui/Button";
import { MomentField } from "../../ui/DayField";
import { FilePick } from "../../ui/FilePick";
import { Fold } from "../../ui/Fold";
import { Note } from "../../ui/Note";
import { Page } from "../../ui/Page";
import { Sheet } from "../../ui/Sheet";
import { Failed, Waiting } from "../../ui/State";
import { useWidth } from "../../ui/useWidth";
import { ActForm } from "./ActForm";
import { Acts } from "./Acts";
import { Among } from "./Among";
import { Answer } from "./Answer";
import { Climate } from "./Climate";
import { Fairness } from "./Fairness";
import { Masses } from "./Masses";
import { MovingParts } from "./MovingParts";
import { SoakForm } from "./SoakForm";
import { type ActKind, hoursSaid, moment, type Soak } from "./soak";
import { TimeLine } from "./TimeLine";
import { Wall } from "./Wall";

/** One soak: its answer, what is due, the coupons along time, and everything that was done. */
export function SoakPage() {
  const { soakId = "" } = useParams();
  const soak = useQuery(soakQuery(soakId));
  if (soak.isPending) return <Waiting what="the soak" />;
  if (soak.isError) return <Failed error={soak.error} onRetry={() => void soak.refetch()} />;
  return <Opened soak={soak.data} />;
}

type Open = "change" | "act" | ActKind | null;

function Opened({ soak }: { soak: Soak }) {
  const [open, setOpen] = useState<Open>(null);
  const { ref, width } = useWidth<HTMLDivElement>(1200);
  const kind = open && open !== "change" ? (open === "act" ? "note" : open) : "note";
  return (
    <Page>
      <div className="flex flex-wrap items-start justify-between gap-x-10 gap-y-4">
        <div className="min-w-0 max-w-3xl flex-1 basis-[420px]">
          <Note>
            {soak.name} · {soak.question}
          </Note>
          <h1 className="answer mt-1">
            {soak.started_utc ? unbroken(soak.headline) : "Not begun yet."}
          </h1>
        </div>
        {soak.is_open ? <Due soak={soak} onDo={setOpen} /> : null}
      </div>
      {soak.started_utc ? (
        <div ref={ref} className="mt-4">
          <SoakRuler
            whole={soak.whole_h}
            now={soak.hours}
            duties={soak.duties}
            phases={soak.answer.phases}
            width={width}
          />
        </div>
      ) : (
        <Begin soak={soak} />
      )}
      {soak.looks.length ? <Wall soak={soak} /> : null}
      {soak.looks.length ? <Answer soak={soak} /> : null}
      <Masses soak={soak} />
      <MovingParts soak={soak} />
      <Climate soak={soak} />
      {soak.looks.length ? <Among soakId={soak.id} /> : null}
      {soak.started_utc ? <TimeLine soak={soak} /> : null}
      <Fairness soak={soak} />
      {soak.started_utc ? <Acts soak={soak} onAdd={() => setOpen("act")} /> : null}
      <nav aria-label="More of this soak" className="mt-8 flex flex-wrap gap-x-4 pb-8">
        <Button kind="quiet" onClick={() => setOpen("change")}>
          Edit soak
        </Button>
        {soak.started_utc ? (
          <>
            <a
              className={buttonLook("quiet")}
              href={folderAddress(`/api/soaks/${soak.id}/looks.csv`)}
              download
            >
              Export inspections
            </a>
            <a
              className={buttonLook("quiet")}
              href={folderAddress(`/api/soaks/${soak.id}/calendar.ics`)}
              download
            >
              Calendar of what is due
            </a>
          </>
        ) : null}
        {soak.looks.length ? (
          <Link className={buttonLook("quiet")} to={`/soak/${soak.id}/blind`}>
            Grade again without names
          </Link>
        ) : null}
        {soak.started_utc ? <BringLooks soak={soak} /> : null}
        <AwayWithIt soak={soak} />
      </nav>
      <Sheet
        open={open === "change"}
        onOpenChange={(o) => (o ? null : setOpen(null))}
        title="Edit soak"
        wide
      >
        <SoakForm soak={soak} onDone={() => setOpen(null)} />
      </Sheet>
      <Sheet
        open={open !== null && open !== "change"}
        onOpenChange={(o) => (o ? null : setOpen(null))}
        title="Interventions"
        note="At its true time: a late one is recorded as late."
      >
        <ActForm key={kind} soak={soak} first={kind} onDone={() => setOpen(null)} />
      </Sheet>
    </Page>
  );
}

/** What is due next, counted down, and the way to do it. */
function Due({ soak, onDo }: { soak: Soak; onDo: (kind: ActKind) => void }) {
  const next = soak.waiting.slice(0, 2);
  return (
    <ul className="flex flex-wrap gap-x-8 gap-y-3">
      {next.map((duty) => {
        const left = duty.clock_due_h - soak.clock_h;
        return (
          <li key={duty.what} className="flex flex-col items-start gap-2">
            <span className="text-note text-ink-2">
              {duty.says}, {left < 0 ? "due since" : "in"}
            </span>
            <span className={`answer ${left < 0 ? "text-rust" : ""}`}>{hoursSaid(left)}</span>
            {duty.what === "look" ? (
              <Link className={buttonLook("next")} to={`/soak/${soak.id}/look`}>
                Inspect now
              </Link>
            ) : (
              <Button onClick={() => onDo(duty.what as ActKind)}>Done just now</Button>
            )}
          </li>
        );
      })}
      {next.length === 0 ? (
        <li>
          <Button kind="next" onClick={() => onDo("ended")}>
            End the soak
          </Button>
        </li>
      ) : null}
    </ul>
  );
}

function Begin({ soak }: { soak: Soak }) {
  const [at, setAt] = useState(() => momentOf(new Date()));
  const start = useChange((typed: string) => startSoak(soak.id, moment(typed)));
  return (
    <div className="mt-5 flex flex-wrap items-end gap-3">
      <MomentField
        label="Begun at"
        value={at}
        onChange={(e) => setAt(e.target.value)}
        error={start.error?.message}
      />
      <Button
        kind="next"
        disabled={start.isPending || !isMoment(at)}
        onClick={() => start.mutate(at)}
      >
        Begin the soak
      </Button>
      <ul className="w-full text-note text-ink-2">
        {[...(soak.how.steps ?? []), ...(soak.how.cautions ?? [])].map((step) => (
          <li key={step}>{step}</li>
        ))}
      </ul>
    </div>
  );
}

/** Looks of a file, all or nothing; the same file twice is kept once. */
function BringLooks({ soak }: { soak: Soak }) {
  const [kept, setKept] = useState<number | null>(null);
  const bring = useChange(async (file: File) => {
    setKept((await importLooks(soak.id, file)).looks);
  });
  return (
    <Fold title="Import inspections" className="w-full max-w-xl">
      <FilePick
        label="A looks file, CSV: one row an inspection"
        onPick={(files) => (files[0] ? bring.mutate(files[0]) : undefined)}
        isWrong={Boolean(bring.error)}
      />
      {bring.error ? <Faults error={bring.error} /> : null}
      {kept !== null && !bring.error ? (
        <p role="status" className="mt-1">
          {plural(kept, "inspection")} kept.
        </p>
      ) : null}
    </Fold>
  );
}

function AwayWithIt({ soak }: { soak: Soak }) {
  const navigate = useNavigate();
  return (
    <TakeAway kind="soak" ownerId={soak.id} onGone={() => navigate("/soak")}>
      Delete
    </TakeAway>
  );
}
