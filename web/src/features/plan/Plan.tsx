import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useRef } from "react";
import { useParams } from "react-router";
import { useChange } from "../../api/changes";
import { api, body, Refused, type Schemas } from "../../api/client";
import { lineUpQuery, planQuery } from "../../api/queries";
import { PowerChart } from "../../charts/PowerChart";
import { plural, typedNumber } from "../../domain/format";
import { Button } from "../../ui/Button";
import { Choice, Field, LongField } from "../../ui/Field";
import { Failed, Waiting } from "../../ui/State";
import { useDraft } from "../../ui/useDraft";
import { useWidth } from "../../ui/useWidth";
import { OrderSheet } from "./OrderSheet";
import { Schedules } from "./Schedules";

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
  const chart = useWidth<HTMLDivElement>(560);
  const [typed, setTyped, , forget] = useDraft(`plan:${trialId}`, asTyped(kept.plan));
  const sent = asSent(typed, kept.plan);
  const tried = useQuery({
    queryKey: ["plan-tried", trialId, sent],
    queryFn: () =>
      body(
        api.POST("/api/trials/{trial_id}/plan/try", { params: { path: { trial_id: trialId } }, body: sent as Sent }),
      ),
    enabled: Boolean(sent),
    retry: false,
    placeholderData: keepPreviousData,
  });
  const save = useChange(
    (plan: Sent) =>
      body(api.PUT("/api/trials/{trial_id}/plan", { params: { path: { trial_id: trialId } }, body: plan })),
    forget,
  );
  const lastGood = useRef(kept);
  if (tried.data && !tried.isError) lastGood.current = tried.data;
  const found = lastGood.current;
  const refused = [save.error, tried.error].find((e) => e instanceof Refused) as Refused | undefined;
  const set = (name: keyof Typed) => (e: { target: { value: string } }) =>
    setTyped({ ...typed, [name]: e.target.value });
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
  return (
    <div className="mx-auto max-w-[1280px] px-4 pt-6 bench:px-7">
      <div className="flex flex-wrap items-start justify-between gap-x-10 gap-y-3">
        <h1 className="answer min-w-0 max-w-4xl basis-[32rem] grow" data-testid="plan-says">
          {says(found)}
        </h1>
        <div className="flex gap-3 print:hidden">
          <Button
            kind={changed ? "next" : "plain"}
            disabled={!sent || save.isPending}
            onClick={() => sent && save.mutate(sent)}
          >
            Keep the plan
          </Button>
          <Button onClick={() => window.print()}>Print the order sheet</Button>
        </div>
      </div>
      {found.shortfalls.length ? (
        <ul aria-label="What cannot be met" className="mt-3 flex flex-col gap-1">
          {found.shortfalls.map((words) => (
            <li key={words} className="border-l-4 border-rust pl-3">
              {words[0]?.toUpperCase()}
              {words.slice(1)}.
            </li>
          ))}
        </ul>
      ) : null}
      <div className="mt-5 grid gap-x-12 gap-y-7 print:hidden bench:grid-cols-[minmax(0,1fr)_minmax(0,1.15fr)]">
        <section aria-label="What is planned" className="grid h-fit grid-cols-2 gap-3">
          <Field label="Edges a blade" {...field("edges", "edges_per_blade")} />
          <Field label="Difference wanted" unit="%" {...field("wanted", "wanted_percent")} />
          <Field
            label="A new blade is thought to last"
            unit="cuts"
            hint="empty: 20; blades cut before go by what they did"
            {...field("life", "expected_life", false)}
          />
          <Choice
            label="Order inside blocks"
            value={typed.order}
            onChange={set("order")}
            error={refused?.at("order_kind")}
          >
            <option value="latin_square">Latin square</option>
            <option value="abba">there and back (two blades)</option>
            <option value="shuffle">shuffled anew</option>
          </Choice>
          <Field label="Rope left" unit="m" hint="empty: not counted" {...field("rope", "rope_left_m", false)} />
          <Field label="Test line left" unit="m" hint="empty: not counted" {...field("line", "line_left_m", false)} />
          <Field label="Rope a cut" unit="mm" {...field("advance", "advance_mm")} />
          <Field label="Test line a reading" unit="mm" {...field("lineEach", "line_mm")} />
          <Field label="Cuts a day for one hand" {...field("cutsADay", "cuts_a_day")} />
          <Field label="A sharpening takes" unit="min" {...field("sharpening", "sharpening_min")} />
          <LongField
            label="What is expected to come out, and in which order"
            className="col-span-2"
            value={typed.prediction}
            onChange={set("prediction")}
            error={refused?.at("prediction")}
            hint="Written down before the first cut; shown unchanged beside the answer."
          />
          {(save.error && !refused) || (refused && !refused.problem.field) ? (
            <p role="alert" className="col-span-2 text-rust">
              {(refused ?? save.error)?.message}
            </p>
          ) : null}
        </section>
        <div className="min-w-0">
          <Cost found={found} />
          <div ref={chart.ref} className="mt-5">
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
              ? `Edge-to-edge spread learned from ${plural(found.repeats_learned, "repeat")} of yours, on top of common practice.`
              : "Edge-to-edge spread by common practice: about 4 %, 1.5 to 12 %."}
          </p>
          <Schedules schedules={found.schedules} />
        </div>
      </div>
      <OrderSheet found={found} trial={trial.data?.trial.name ?? ""} />
    </div>
  );
}

function says(found: Found): string {
  const edges = found.plan.edges_per_blade ?? 1;
  if (found.shows_percent === null) return "Add a second blade, and the plan says what it can show.";
  const wanted = found.plan.wanted_percent ?? 20;
  const need =
    found.edges_for_wanted === null
      ? `${wanted} % is out of reach even with 60.`
      : found.edges_for_wanted <= edges
        ? `That is enough for the ${wanted} % wanted.`
        : `For the ${wanted} % wanted it takes ${found.edges_for_wanted}.`;
  return `${plural(edges, "edge")} a blade can show a difference of ${Math.round(found.shows_percent)} %. ${need}`;
}

function Cost({ found }: { found: Found }) {
  const { cost, pace } = found;
  const rows: Array<readonly [string, string, string]> = [
    [
      "still to cut",
      plural(cost.runs, "run"),
      `about ${Math.round(cost.cuts)} cuts, ${Math.round(cost.readings)} readings`,
    ],
    ["rope", `${cost.rope_m.toFixed(1)} m`, `${pace.advance_mm} mm a cut and ${pace.offcut_m} m of offcut a run`],
    ["test line", `${cost.line_m.toFixed(1)} m`, `${pace.line_mm} mm a reading`],
    [
      "time",
      `${cost.hours.toFixed(1)} h`,
      `${pace.cut_s} s a cut, ${pace.reading_s} s a reading${found.pace_learned ? ", as your own runs went" : ", as is usual"}`,
    ],
    ["for the hand", plural(cost.days, "day"), `at ${pace.cuts_a_day} cuts a day`],
  ];
  return (
    <section aria-label="What it costs">
      <h2 className="text-lead font-bold">What it costs</h2>
      <table className="mt-1 w-full border-collapse" data-testid="cost">
        <tbody>
          {rows.map(([name, value, why]) => (
            <tr key={name} className="border-b border-line">
              <th scope="row" className="py-1 pr-3 text-left font-normal text-ink-2">
                {name}
              </th>
              <td className="pr-4 font-bold whitespace-nowrap">{value}</td>
              <td className="text-note text-ink-2">{why}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
