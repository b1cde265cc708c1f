import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { Link, useParams } from "react-router";
import { useChange } from "../../api/changes";
import { api, body, type Schemas } from "../../api/client";
import { lineUpQuery, planQuery } from "../../api/queries";
import { ChartFrame } from "../../charts/ChartFrame";
import { PowerChart } from "../../charts/PowerChart";
import { plural } from "../../domain/format";
import { Button } from "../../ui/Button";
import { Page } from "../../ui/Page";
import { Failed, Waiting } from "../../ui/State";
import { useForm } from "../../ui/useForm";
import { useWidth } from "../../ui/useWidth";
import { Blind } from "./Blind";
import { Cost } from "./Cost";
import { OrderSheet } from "./OrderSheet";
import { PlanFields } from "./PlanFields";
import { Played } from "./Played";
import { PLAN_KINDS, type PlanBody, type PlanForm, planSent, planTyped } from "./planForm";
import { Schedules } from "./Schedules";
import { WorkDays } from "./WorkDays";

type Found = Schemas["TrialPlanOut"];

/** What a trial will cost and can show, before its first cut: one number moved moves the rest. */
export function Plan() {
  const { trialId = "" } = useParams();
  const kept = useQuery(planQuery(trialId));
  if (kept.isPending) return <Waiting what="the plan" />;
  if (kept.isError) return <Failed error={kept.error} onRetry={() => void kept.refetch()} />;
  return <PlanBench key={trialId} trialId={trialId} kept={kept.data} />;
}

function PlanBench({ trialId, kept }: { trialId: string; kept: Found }) {
  const trial = useQuery(lineUpQuery(trialId));
  const chart = useWidth<HTMLDivElement>(560);
  const place = { params: { path: { trial_id: trialId } } };
  const save = useChange(
    (plan: PlanBody) => body(api.PUT("/api/trials/{trial_id}/plan", { ...place, body: plan })),
    () => {
      form.drop();
    },
  );
  const [refused, setRefused] = useState<Error | null>(null);
  const form: PlanForm = useForm({
    draft: `plan:${trialId}`,
    kinds: PLAN_KINDS,
    start: planTyped(kept.plan),
    error: save.error ?? refused,
  });
  const read = form.values;
  const sent = read && planSent(read, kept.plan);
  const tried = useQuery({
    queryKey: ["plan-tried", trialId, sent, kept.method.id],
    queryFn: () =>
      body(api.POST("/api/trials/{trial_id}/plan/try", { ...place, body: sent as PlanBody })),
    enabled: Boolean(sent),
    retry: false,
    placeholderData: keepPreviousData,
  });
  if (tried.error !== refused) setRefused(tried.error);
  const lastGood = useRef(kept);
  if (tried.data && !tried.isError) lastGood.current = tried.data;
  const found = lastGood.current;
  return (
    <Page>
      <div className="flex flex-wrap items-start justify-between gap-x-10 gap-y-3">
        <h1 className="answer min-w-0 max-w-4xl basis-[32rem] grow" data-testid="plan-says">
          {says(found)}
        </h1>
        {found.one_blade ? <p className="mt-1 max-w-3xl text-ink-2">{found.one_blade}</p> : null}
        <div className="flex gap-3 print:hidden">
          <Button
            kind={form.isChanged ? "next" : "plain"}
            disabled={!sent || save.isPending}
            onClick={() => sent && save.mutate(sent)}
          >
            Save plan
          </Button>
          <Button onClick={() => window.print()}>Print order sheet</Button>
        </div>
      </div>
      {found.shortfalls.length ? (
        <ul aria-label="Problems" className="mt-3 flex flex-col gap-1">
          {found.shortfalls.map((words) => (
            <li key={words} className="border-l-4 border-rust pl-3">
              {words[0]?.toUpperCase()}
              {words.slice(1)}.
            </li>
          ))}
        </ul>
      ) : null}
      <p className="mt-3 max-w-5xl print:hidden" data-testid="method">
        <Link to={`/trials/${trialId}/method`} className="font-bold underline underline-offset-4">
          {found.method.name}
        </Link>
        , version {found.method.number}: a run {found.method.ends_when}. Checked{" "}
        {found.method.checked}.
      </p>
      <div
        className={`mt-4 grid gap-x-12 gap-y-7 print:hidden
        bench:grid-cols-[minmax(0,1fr)_minmax(0,1.15fr)]`}
      >
        <section aria-label="Plan" className="grid h-fit grid-cols-2 gap-3">
          <PlanFields form={form} found={found} />
          <div className="col-span-2 mt-3">
            <Blind found={found} trialId={trialId} />
          </div>
        </section>
        <div className="min-w-0">
          <Cost found={found} />
          <div ref={chart.ref} className={found.by_edges.length ? "mt-5" : "hidden"}>
            <ChartFrame
              name="Differences that the plan can show"
              caption={
                found.repeats_learned
                  ? `Edge-to-edge spread learned from ${plural(found.repeats_learned, "repeat")} ` +
                    "of yours and common practice."
                  : "Edge-to-edge spread by common practice: about 4 %, 1.5 to 12 %."
              }
              numbers={{
                heads: ["edges a blade", "difference that can be shown, %"],
                rows: found.by_edges.map((p) => [String(p.edges), p.percent.toFixed(1)]),
              }}
            >
              {() => (
                <PowerChart
                  points={found.by_edges}
                  edges={read?.edges_per_blade ?? 1}
                  wanted={found.plan.wanted_percent ?? 20}
                  hoursAnEdge={found.cost.runs ? found.cost.hours / found.cost.runs : null}
                  blades={found.blades.length}
                  width={chart.width}
                  onChoose={(n) => form.set({ edges_per_blade: String(n) })}
                />
              )}
            </ChartFrame>
          </div>
          <Schedules schedules={found.schedules} method={found.method} trialId={trialId} />
          <WorkDays found={found} trialId={trialId} />
        </div>
      </div>
      <div className="mt-7 print:hidden">
        <Played
          key={`${kept.plan.edges_per_blade}-${kept.blades.length}`}
          found={kept}
          trialId={trialId}
        />
      </div>
      <OrderSheet found={found} trial={trial.data?.trial.name ?? ""} />
    </Page>
  );
}

function says(found: Found): string {
  const edges = found.plan.edges_per_blade ?? 1;
  if (found.shows_percent === null)
    return found.blades.length < 2
      ? "Add a second blade, and the plan says what it can show."
      : "Effort is a felt scale without ratios: this plan ranks the blades and gives " +
          "no smallest difference.";
  const wanted = found.plan.wanted_percent ?? 20;
  const need =
    found.edges_for_wanted === null
      ? `${wanted} % is out of reach even with 60.`
      : found.edges_for_wanted <= edges
        ? `That is enough for the ${wanted} % wanted.`
        : `For the ${wanted} % wanted it takes ${found.edges_for_wanted}.`;
  const each = found.one_blade ? "an arm" : "a blade";
  const shows = Math.round(found.shows_percent);
  const short = found.shows_percent > wanted && shows <= wanted;
  return (
    `${plural(edges, "edge")} ${each} can show a difference of ` +
    `${short ? `just over ${shows}` : shows} %. ${need}`
  );
}
