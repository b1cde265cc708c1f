import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useParams } from "react-router";
import { putEdge, useChange } from "../../api/changes";
import type { Schemas } from "../../api/client";
import { folderAddress } from "../../api/folder";
import { bladeQuery, quantitiesQuery } from "../../api/queries";
import { EdgeStrip } from "../../charts/EdgeStrip";
import { day, plural } from "../../domain/format";
import { newId } from "../../domain/ids";
import { leftOut } from "../../domain/leftOut";
import { fullCuts, stripEdges } from "../../domain/strips";
import { AssayWord } from "../../parts/AssayWord";
import { EdgeCard } from "../../parts/EdgeCard";
import { RustWord } from "../../parts/RustWord";
import { Button, buttonLook } from "../../ui/Button";
import { Mark } from "../../ui/Mark";
import { Page } from "../../ui/Page";
import { Heading, Section } from "../../ui/Section";
import { Failed, Waiting } from "../../ui/State";
import { Toggles } from "../../ui/Toggles";
import { useWidth } from "../../ui/useWidth";
import { AboutBlade } from "./AboutBlade";
import { Care } from "./Care";
import { Facts } from "./Facts";
import { FieldExposures } from "./FieldExposures";
import { Photos } from "./Photos";
import { PutAway } from "./PutAway";
import { Toughness } from "./Toughness";

/** The card as a picture, without what is usually left out. */
function cardAddress(bladeId: string): string {
  const asked = new URLSearchParams(leftOut().map((each) => ["leave_out", each]));
  return folderAddress(`/api/blades/${bladeId}/card?${asked}`);
}

/**
 * All that is known of one blade: its edge, its facts with their standing, its sharpenings, runs
 * and pictures.
 */
export function BladePage() {
  const { bladeId = "" } = useParams();
  const page = useQuery(bladeQuery(bladeId));
  const quantities = useQuery(quantitiesQuery);
  const { ref, width } = useWidth<HTMLDivElement>(1100);
  if (page.isPending || quantities.isPending) return <Waiting what="the blade" />;
  if (page.isError) return <Failed error={page.error} onRetry={() => void page.refetch()} />;
  if (quantities.isError)
    return <Failed error={quantities.error} onRetry={() => void quantities.refetch()} />;
  const { blade, runs } = page.data;
  const own = runs.map((r) => ({ ...r, arm_id: blade.arm_id }));
  return (
    <Page>
      <div className="flex flex-wrap items-start justify-between gap-x-8 gap-y-3">
        <h1 className="answer flex items-center gap-4">
          <Mark mark={blade.mark} size={34} />
          {blade.code}
          <span className="text-lead font-normal text-ink-2">
            {blade.claimed_grade ? `claimed as ${blade.claimed_grade}` : "steel not named"}
            {blade.archived_utc ? ", archived" : ""}
          </span>
        </h1>
        <div className="flex flex-wrap gap-3">
          <a className={buttonLook()} href={cardAddress(blade.id)} download>
            Save card
          </a>
          <Link className={buttonLook()} to={`/blades/${blade.id}/passport`}>
            Print passport
          </Link>
          <PutAway blade={blade} />
        </div>
      </div>
      <div ref={ref} className="pt-4">
        <EdgeStrip
          mark={blade.mark}
          title={blade.code}
          edgeLengthMm={blade.edge_length_mm}
          edges={stripEdges(own, blade)}
          fullCuts={fullCuts(own)}
          width={width}
          detail
        />
      </div>
      <div className="grid gap-x-12 gap-y-8 pt-5 bench:grid-cols-[1.1fr_1fr]">
        <Facts page={page.data} quantities={quantities.data} />
        <div className="flex flex-col gap-7">
          <Section title="Composition">
            <AssayWord bladeId={blade.id} />
          </Section>
          <Section title="Corrosion">
            <RustWord bladeId={blade.id} />
            <FieldExposures bladeId={blade.id} />
          </Section>
          <Care bladeId={blade.id} />
          <Toughness owner={{ blade_id: blade.id }} />
          <AboutBlade blade={blade} />
          <Hardening page={page.data} />
          <Photos blade={blade} photos={page.data.photos} />
          <RunsOfBlade runs={runs} trials={page.data.trials} />
        </div>
      </div>
      <Edges page={page.data} quantities={quantities.data} />
    </Page>
  );
}

/** Heat treatment, and what is taught of such a steel; no result rests on it. */
function Hardening({ page }: { page: Schemas["BladePageOut"] }) {
  if (page.hardening.length === 0) return null;
  return (
    <Section title="Heat treatment">
      <ul className="mt-1 flex flex-col gap-1">
        {page.hardening.map((line) => (
          <li key={line}>{line}</li>
        ))}
      </ul>
    </Section>
  );
}

function RunsOfBlade({
  runs,
  trials,
}: {
  runs: Schemas["RunOfBladeOut"][];
  trials: Schemas["BladePageOut"]["trials"];
}) {
  return (
    <Section title="Trials">
      {trials.length === 0 ? <p className="text-ink-2">In no trial yet.</p> : null}
      <ul>
        {trials.map((t) => {
          const own = runs.filter((r) => r.trial_id === t.id && !r.practice);
          return (
            <li key={t.id} className="mt-1">
              <Link
                className="font-semibold underline underline-offset-4"
                to={`/trials/${t.id}/line-up`}
              >
                {t.name}
              </Link>
              <span className="text-ink-2">
                {": "}
                {own.length ? plural(own.length, "run") : "no run yet"}
              </span>
              <ul className="text-note text-ink-2">
                {own.map((r) => (
                  <li key={r.run_id}>
                    <Link
                      to={`/runs/${r.run_id}`}
                      className="underline decoration-line underline-offset-4"
                    >
                      edge {r.edge}
                    </Link>
                    , {r.count} {r.count_unit}, {r.status}, {day(r.started_utc)}
                  </li>
                ))}
              </ul>
            </li>
          );
        })}
      </ul>
    </Section>
  );
}

function Edges({
  page,
  quantities,
}: {
  page: Schemas["BladePageOut"];
  quantities: Schemas["QuantityOut"][];
}) {
  const { blade, recipes } = page;
  const [chosen, setChosen] = useState<string | null>(null);
  const edge = blade.edges.find((e) => e.id === chosen) ?? blade.edges.at(-1);
  const add = useChange((id: string) => putEdge(blade.id, { id }));
  const counts = (edgeId: string) =>
    page.edge_standings.find((s) => s.edge_id === edgeId)?.settled.state === "settled";
  return (
    <section aria-label="Sharpenings" className="mt-8 border-t-[1.5px] border-ink pt-4 pb-8">
      <div className="flex flex-wrap items-center gap-2">
        <Heading className="mr-4">Edges</Heading>
        <Toggles
          says="Edge"
          value={edge?.id}
          onPick={setChosen}
          choices={blade.edges.map((e) => [
            e.id,
            <span key={e.id}>
              {e.number}
              {counts(e.id) ? "" : <span className="cond text-note font-normal"> not counted</span>}
            </span>,
          ])}
        />
        <Button kind="quiet" onClick={() => add.mutate(newId())}>
          Record a sharpening
        </Button>
      </div>
      {add.error ? <p className="text-rust">{add.error.message}</p> : null}
      {edge ? (
        <div className="pt-4">
          <EdgeCard
            key={edge.id}
            bladeId={blade.id}
            lengthMm={blade.edge_length_mm}
            edge={edge}
            standing={page.edge_standings.find((s) => s.edge_id === edge.id)}
            quantities={quantities}
            recipeName={recipes.find((r) => r.id === edge.recipe_id)?.name}
          />
        </div>
      ) : (
        <p className="pt-3 text-ink-2">
          No sharpening is recorded yet; the first one makes edge 1.
        </p>
      )}
    </section>
  );
}
