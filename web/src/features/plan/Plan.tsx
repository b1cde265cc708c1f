import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useRef } from "react";
import { Link, useParams } from "react-router";
import { useChange } from "../../api/changes";
import { api, body, Refused, type Schemas } from "../../api/client";
import { lineUpQuery, lotsQuery, planQuery } from "../../api/queries";
import { PowerChart } from "../../charts/PowerChart";
import { FORCE } from "../../domain/checks";
import { plural, typedNumber } from "../../domain/format";
import { WORDS } from "../../domain/words";
import { Button } from "../../ui/Button";
import { Choice, Option, Options } from "../../ui/Choice";
import { DayField } from "../../ui/DayField";
import { Field, LongField } from "../../ui/Field";
import { Failed, Waiting } from "../../ui/State";
import { Tick } from "../../ui/Tick";
import { useDraft } from "../../ui/useDraft";
import { useWidth } from "../../ui/useWidth";
import { Blind } from "./Blind";
import { Cost } from "./Cost";
import { OrderSheet } from "./OrderSheet";
import { PlannedLives } from "./PlannedLives";
import { Schedules } from "./Schedules";
import { WorkDays } from "./WorkDays";

type Sent = Schemas["PlanBody"];
type Found = Schemas["TrialPlanOut"];

/** What a trial will cost and can show, before its first cut: one number moved moves the rest. */
export function Plan() {
  const { trialId = "" } = useParams();
  const kept = useQuery(planQuery(trialId));
  if (kept.isPending) return <Waiting what="the plan" />;
  if (kept.isError) return <Failed error={kept.error} onRetry={() => void kept.refetch()} />;
  return <PlanBench key={trialId} trialId={trialId} kept={kept.data} />;
}

const text = (value: number | null | undefined) => value?.toString() ?? "";

function asTyped(plan: Sent) {
  const pace = plan.pace ?? {};
  return {
    edges: text(plan.edges_per_blade),
    life: text(plan.expected_life),
    wanted: text(plan.wanted_percent),
    rope: text(plan.rope_left_m),
    line: text(plan.line_left_m),
    advance: text(pace.advance_mm),
    lineEach: text(pace.line_mm),
    cutsADay: text(pace.cuts_a_day),
    sharpening: text(pace.sharpening_min),
    mediumLot: plan.medium_lot_id ?? "",
    checkLot: plan.check_lot_id ?? "",
    startsOn: plan.starts_on ?? "",
    hoursADay: text(plan.hours_a_day ?? 4),
    balance: plan.balance_zones ?? false,
    order: plan.order_kind ?? "latin_square",
    seed: text(plan.seed),
    prediction: plan.prediction ?? "",
  };
}
type Typed = ReturnType<typeof asTyped>;

const NUMBERS = [
  "edges",
  "life",
  "wanted",
  "rope",
  "line",
  "advance",
  "lineEach",
  "cutsADay",
  "sharpening",
  "hoursADay",
  "seed",
] as const;

/** The plan as it would be sent; undefined while a number cannot be read. */
function asSent(typed: Typed, kept: Sent): Sent | undefined {
  const read = Object.fromEntries(NUMBERS.map((name) => [name, typedNumber(typed[name])]));
  const need = (name: (typeof NUMBERS)[number]) => read[name] ?? undefined;
  if (Object.values(read).includes(undefined)) return undefined;
  const whole = [
    need("edges"),
    need("wanted"),
    need("advance"),
    need("lineEach"),
    need("cutsADay"),
    need("sharpening"),
    need("hoursADay"),
  ];
  if (whole.includes(undefined)) return undefined;
  return {
    ...kept,
    edges_per_blade: Math.round(need("edges") ?? 2),
    expected_life: read.life ?? null,
    wanted_percent: need("wanted") ?? 20,
    rope_left_m: read.rope ?? null,
    line_left_m: read.line ?? null,
    order_kind: typed.order,
    seed: Math.round(need("seed") ?? 1),
    prediction: typed.prediction,
    medium_lot_id: typed.mediumLot || null,
    check_lot_id: typed.checkLot || null,
    starts_on: typed.startsOn,
    hours_a_day: need("hoursADay") ?? 4,
    balance_zones: typed.balance,
    pace: {
      ...kept.pace,
      advance_mm: need("advance") ?? 25,
      line_mm: need("lineEach") ?? 120,
      cuts_a_day: Math.round(need("cutsADay") ?? 250),
      sharpening_min: need("sharpening") ?? 20,
    },
  };
}

function PlanBench({ trialId, kept }: { trialId: string; kept: Found }) {
  const trial = useQuery(lineUpQuery(trialId));
  const lots = useQuery(lotsQuery);
  const chart = useWidth<HTMLDivElement>(560);
  const [typed, setTyped, , forget] = useDraft(`plan:${trialId}`, asTyped(kept.plan));
  const sent = asSent(typed, kept.plan);
  const tried = useQuery({
    queryKey: ["plan-tried", trialId, sent, kept.method.id],
    queryFn: () =>
      body(
        api.POST("/api/trials/{trial_id}/plan/try", {
          params: { path: { trial_id: trialId } },
          body: sent as Sent,
        }),
      ),
    enabled: Boolean(sent),
    retry: false,
    placeholderData: keepPreviousData,
  });
  const save = useChange(
    (plan: Sent) =>
      body(
        api.PUT("/api/trials/{trial_id}/plan", {
          params: { path: { trial_id: trialId } },
          body: plan,
        }),
      ),
    forget,
  );
  const lastGood = useRef(kept);
  if (tried.data && !tried.isError) lastGood.current = tried.data;
  const found = lastGood.current;
  const refused = [save.error, tried.error].find((e) => e instanceof Refused) as
    | Refused
    | undefined;
  const set = (name: Exclude<keyof Typed, "balance">) => (e: { target: { value: string } }) =>
    setTyped({ ...typed, [name]: e.target.value });
  const pick = (name: "order" | "mediumLot" | "checkLot") => (picked: string) =>
    setTyped({ ...typed, [name]: picked });
  const field = (name: (typeof NUMBERS)[number], wire: string, needed = true) => ({
    value: typed[name],
    onChange: set(name),
    inputMode: "decimal" as const,
    error:
      typedNumber(typed[name]) === undefined || (needed && typedNumber(typed[name]) === null)
        ? `“${typed[name]}” is not a number`
        : refused?.at(wire),
  });
  const changed = JSON.stringify(sent) !== JSON.stringify(asSent(asTyped(kept.plan), kept.plan));
  const edges = Number(typedNumber(typed.edges)) || 1;
  const byForce = found.method.check_rows.some((row) => row.key === FORCE.key);
  const stock = (lots.data ?? []).filter(
    (lot) => !lot.archived || [typed.mediumLot, typed.checkLot].includes(lot.id),
  );
  return (
    <div className="mx-auto max-w-[1280px] px-4 pt-6 bench:px-7">
      <div className="flex flex-wrap items-start justify-between gap-x-10 gap-y-3">
        <h1 className="answer min-w-0 max-w-4xl basis-[32rem] grow" data-testid="plan-says">
          {says(found)}
        </h1>
        {found.one_blade ? <p className="mt-1 max-w-3xl text-ink-2">{found.one_blade}</p> : null}
        <div className="flex gap-3 print:hidden">
          <Button
            kind={changed ? "next" : "plain"}
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
          <Field label="Edges a blade" {...field("edges", "edges_per_blade")} />
          <Field label="Difference wanted" unit="%" {...field("wanted", "wanted_percent")} />
          <Field
            label="Expected life of an uncut blade"
            unit={found.method.count_unit ?? "cuts"}
            hint="empty: estimated"
            {...field("life", "expected_life", false)}
          />
          <PlannedLives blades={found.blades} unit={found.method.count_unit ?? "cuts"} />
          <Choice
            label="Order inside blocks"
            term="block"
            value={typed.order}
            onPick={pick("order")}
            error={refused?.at("order_kind")}
          >
            <Options of={WORDS.orders} />
          </Choice>
          <LotChoice
            label="Medium from"
            lots={stock.filter((l) => ["rope", "board", "card"].includes(l.kind))}
            value={typed.mediumLot}
            onPick={pick("mediumLot")}
            error={refused?.at("medium_lot_id")}
          />
          <LotChoice
            label="Checked with"
            lots={stock.filter((l) => ["test_line", "paper"].includes(l.kind))}
            value={typed.checkLot}
            onPick={pick("checkLot")}
            error={refused?.at("check_lot_id")}
          />
          {typed.mediumLot || found.method.medium !== "rope" ? null : (
            <Field
              label="Rope left"
              unit="m"
              hint="empty: not counted"
              {...field("rope", "rope_left_m", false)}
            />
          )}
          {typed.checkLot || !byForce ? null : (
            <Field
              label="Test line left"
              unit="m"
              hint="empty: not counted"
              {...field("line", "line_left_m", false)}
            />
          )}
          {found.method.medium === "rope" ? (
            <Field label="Rope a cut" unit="mm" {...field("advance", "advance_mm")} />
          ) : null}
          {byForce ? (
            <Field label="Test line a reading" unit="mm" {...field("lineEach", "line_mm")} />
          ) : null}
          <Field label="Cuts a day for one hand" {...field("cutsADay", "cuts_a_day")} />
          <Field label="A sharpening takes" unit="min" {...field("sharpening", "sharpening_min")} />
          <DayField
            label="Work begins on"
            value={typed.startsOn}
            onChange={set("startsOn")}
            error={refused?.at("starts_on")}
            hint="empty: no days are planned"
          />
          <Field label="Hours of work a day" unit="h" {...field("hoursADay", "hours_a_day")} />
          <div className="col-span-2">
            <Tick
              label="Spread heel, middle and tip over the blades"
              checked={typed.balance}
              onTick={(on) => setTyped({ ...typed, balance: on })}
            />
          </div>
          <LongField
            label="Prediction: order of the blades, and why"
            className="col-span-2"
            value={typed.prediction}
            onChange={set("prediction")}
            error={refused?.at("prediction")}
            hint="Recorded before the first cut, and shown unchanged beside the answer."
          />
          {(save.error && !refused) || (refused && !refused.problem.field) ? (
            <p role="alert" className="col-span-2 text-rust">
              {(refused ?? save.error)?.message}
            </p>
          ) : null}
          <div className="col-span-2 mt-3">
            <Blind found={found} trialId={trialId} />
          </div>
        </section>
        <div className="min-w-0">
          <Cost found={found} />
          <div ref={chart.ref} className={found.by_edges.length ? "mt-5" : "hidden"}>
            <PowerChart
              points={found.by_edges}
              edges={edges}
              wanted={found.plan.wanted_percent ?? 20}
              hoursAnEdge={found.cost.runs ? found.cost.hours / found.cost.runs : null}
              blades={found.blades.length}
              width={chart.width}
              onChoose={(n) => setTyped({ ...typed, edges: String(n) })}
            />
          </div>
          <p className="mt-1 text-note text-ink-2">
            {found.repeats_learned
              ? `Edge-to-edge spread learned from ${plural(found.repeats_learned, "repeat")} ` +
                "of yours and common practice."
              : "Edge-to-edge spread by common practice: about 4 %, 1.5 to 12 %."}
          </p>
          <Schedules schedules={found.schedules} method={found.method} trialId={trialId} />
          <WorkDays found={found} trialId={trialId} />
        </div>
      </div>
      <OrderSheet found={found} trial={trial.data?.trial.name ?? ""} />
    </div>
  );
}

function LotChoice({
  lots,
  ...rest
}: {
  label: string;
  lots: Schemas["LotOut"][];
  value: string;
  onPick: (value: string) => void;
  error: string | undefined;
}) {
  return (
    <Choice {...rest} hint={lots.length ? undefined : "no such lot on the shelf yet"}>
      <Option value="">no lot named</Option>
      {lots.map((lot) => (
        <Option key={lot.id} value={lot.id}>
          {lot.name}
          {lot.left === null ? "" : `, ${Math.max(lot.left, 0).toFixed(1)} ${lot.unit} left`}
        </Option>
      ))}
    </Choice>
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
