import { useQuery } from "@tanstack/react-query";
import { Link, useSearchParams } from "react-router";
import type { Schemas } from "../../api/client";
import { soaksQuery } from "../../api/queries";
import { SoakRuler } from "../../charts/SoakRuler";
import { day, unbroken } from "../../domain/format";
import { Button } from "../../ui/Button";
import { Mark } from "../../ui/Mark";
import { Note } from "../../ui/Note";
import { Page } from "../../ui/Page";
import { Heading } from "../../ui/Section";
import { Sheet } from "../../ui/Sheet";
import { Failed, Waiting } from "../../ui/State";
import { useWidth } from "../../ui/useWidth";
import { SideBySide } from "./SideBySide";
import { SoakForm } from "./SoakForm";
import { hoursSaid } from "./soak";

/** Everything that is or was exposed, with what is due next and what it answered. */
export function Soaks() {
  const soaks = useQuery(soaksQuery);
  const [search, setSearch] = useSearchParams();
  if (soaks.isPending) return <Waiting what="the soaks" />;
  if (soaks.isError) return <Failed error={soaks.error} onRetry={() => void soaks.refetch()} />;
  const open = soaks.data.filter((soak) => soak.is_open);
  const coming = soaks.data.filter((soak) => !soak.started_utc);
  const over = soaks.data.filter((soak) => soak.started_utc && !soak.is_open);
  return (
    <Page>
      <div className="flex flex-wrap items-start justify-between gap-x-10 gap-y-4">
        <h1 className="answer max-w-4xl">{headline(open)}</h1>
        <Button kind={open.length ? "plain" : "next"} onClick={() => setSearch({ new: "soak" })}>
          New soak
        </Button>
      </div>
      <Note className="mt-2 max-w-3xl">
        Brine, acids and mustard: gloves, air, and never mix cleaners; keep brine off electrics.
        Local rules come first.
      </Note>
      {[...open, ...coming, ...over].map((soak) => (
        <SoakRow key={soak.id} soak={soak} />
      ))}
      {soaks.data.length === 0 ? (
        <p className="mt-8 max-w-2xl text-ink-2">
          Write a question, choose a method, add the blades: a baseline that must rust shows whether
          the soak was severe enough, and both sides of each blade show how small a difference can
          be told.
        </p>
      ) : (
        <SideBySide soaks={soaks.data} />
      )}
      <Sheet
        open={search.get("new") === "soak"}
        onOpenChange={(o) => (o ? null : setSearch({}))}
        title="New soak"
        note="One question, one method, everything else held equal."
        wide
      >
        <SoakForm soak={undefined} onDone={() => setSearch({})} />
      </Sheet>
    </Page>
  );
}

type Line = Schemas["SoakLineOut"];

function headline(open: readonly Line[]): string {
  const due = open
    .flatMap((soak) => (soak.waiting[0] ? [{ soak, next: soak.waiting[0] }] : []))
    .sort((a, b) => left(a.soak) - left(b.soak))[0];
  if (!due) return open.length ? "Nothing is due in the soaks." : "No soak is under way.";
  const hours = left(due.soak);
  const when = hours < 0 ? `due since ${hoursSaid(hours)}` : `in ${hoursSaid(hours)}`;
  return `${due.soak.name}: ${due.next.says} ${when}.`;
}

const left = (soak: Line) =>
  soak.waiting[0] ? soak.waiting[0].clock_due_h - soak.clock_h : Number.POSITIVE_INFINITY;

function SoakRow({ soak }: { soak: Line }) {
  const { ref, width } = useWidth<HTMLDivElement>(520);
  return (
    <section aria-label={soak.name} className="mt-7 border-t-[1.5px] border-ink pt-3">
      <div className="grid gap-x-10 gap-y-3 bench:grid-cols-[1fr_minmax(300px,420px)]">
        <div>
          <Heading>
            <Link
              to={`/soak/${soak.id}`}
              className="underline decoration-line underline-offset-4 hover:decoration-ink"
            >
              {soak.name}
            </Link>
            <span className="ml-3 text-note font-normal text-ink-2">
              {soak.method}
              {soak.started_utc ? `, begun ${day(soak.started_utc)}` : ", not begun"}
            </span>
          </Heading>
          <p className="mt-1 text-lead">
            {soak.started_utc ? unbroken(soak.headline) : soak.question}
          </p>
          <ul className="mt-2 flex flex-wrap gap-x-4 gap-y-1 text-note">
            {soak.coupons.map((coupon, place) => (
              <li key={coupon.id} className="flex items-center gap-1">
                <Mark mark={coupon.blade_id ? coupon.mark : place} size={16} />
                {coupon.called}
                {coupon.role === "baseline" ? <span className="text-ink-2"> must rust</span> : null}
              </li>
            ))}
          </ul>
        </div>
        <div ref={ref}>
          {soak.started_utc ? (
            <SoakRuler whole={soak.whole_h} now={soak.hours} duties={soak.duties} width={width} />
          ) : (
            <p className="text-ink-2">Begin it on its page.</p>
          )}
        </div>
      </div>
    </section>
  );
}
