import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { api, body, type Schemas } from "../../api/client";
import { instrumentsQuery } from "../../api/queries";
import { counted, plural } from "../../domain/format";
import type { InstrumentNews } from "./bench";
import type { Shown } from "./projection";

type Run = Schemas["RunOut"];
const STOCK_EVERY_MS = 60_000;

const more = (amount: number, unit: string) =>
  amount === 1 && unit.endsWith("s")
    ? `1 more ${unit.slice(0, -1)}`
    : `${counted(amount)} more ${unit}`;

/** Two thumbs never make two cuts of one: who holds the count, and what the other proposes. */
export function Holder({
  run,
  shown,
  onTakeOver,
  onAccept,
  onLeaveOut,
}: {
  run: Run;
  shown: Shown;
  onTakeOver: () => void;
  onAccept: () => void;
  onLeaveOut: () => void;
}) {
  const { proposals, holds } = shown;
  if (holds && proposals.amount === 0) return null;
  const button = "min-h-16 cursor-pointer rounded-edge border-[1.5px] px-4 font-semibold";
  return (
    <div
      role="status"
      data-testid="holder"
      className="mt-2 flex flex-wrap items-center gap-3 border-l-4 border-glint pl-3"
    >
      <span className="max-w-[34rem]">
        {holds
          ? `The other device proposes ${more(proposals.amount, run.count_unit)}.`
          : proposals.own > 0
            ? `Another device holds the count. ${counted(proposals.own)} tapped here wait for ` +
              "it to accept."
            : "Another device holds the count; taps here are proposals."}
      </span>
      {holds ? (
        <>
          <button type="button" className={`${button} border-next text-next`} onClick={onAccept}>
            Count them
          </button>
          <button type="button" className={`${button} border-line`} onClick={onLeaveOut}>
            Exclude them
          </button>
        </>
      ) : (
        <button type="button" className={`${button} border-next text-next`} onClick={onTakeOver}>
          Count here
        </button>
      )}
    </div>
  );
}

/** The instrument's last word: what still moves or cannot be read is shown, and not recorded. */
export function InstrumentLine({ news }: { news: InstrumentNews | null }) {
  if (!news || news.what === "pedal") return null;
  const words: Record<string, string> = {
    there: "is connected",
    lost: "is disconnected; Kessik is looking for it",
    moving:
      news.value === null ? "" : `${counted(Math.round(news.value))} ${news.unit}, still moving`,
    reading: news.value === null ? "" : `${counted(news.value)} ${news.unit}, recorded`,
    refused: news.text,
    picture: `photo ${news.text}`,
    result: news.text,
  };
  const tone =
    { lost: "text-rust", refused: "text-glint-ink", reading: "text-ink" }[news.what as string] ??
    "text-ink-2";
  return (
    <p role="status" data-testid="instrument" className={`text-note font-semibold ${tone}`}>
      {news.name}: {words[news.what]}
    </p>
  );
}

/** Before it says anything: whether the tester is there, and reads as it did. */
export function TesterStanding() {
  const instruments = useQuery(instrumentsQuery);
  const testers = (instruments.data ?? []).filter((i) => i.kind === "force" && i.in_use);
  return testers.map((tester) => {
    const words = !tester.is_there
      ? "not found"
      : tester.drift?.warns
        ? tester.drift.words
        : tester.checked_today
          ? "connected, checked today"
          : "connected, not checked on its reference today";
    const tone = !tester.is_there || tester.drift?.warns ? "text-rust" : "text-ink-2";
    return (
      <p key={tester.id} className={`text-note ${tone}`} data-testid="tester">
        {tester.name}: {words}
      </p>
    );
  });
}

/** How fast the hand is, when it should rest, and how far the stock goes. */
export function HandAndStock({ run, shown }: { run: Run; shown: Shown }) {
  const stock = useQuery({
    queryKey: ["run-stock", run.id],
    queryFn: () =>
      body(api.GET("/api/runs/{run_id}/stock", { params: { path: { run_id: run.id } } })),
    refetchInterval: STOCK_EVERY_MS,
    enabled: !run.is_virtual,
  });
  const { pace } = run;
  if (shown.pausedSince) return <BreakTimer since={shown.pausedSince} />;
  const minutes = Math.round(pace.minutes_without_break);
  return (
    <p className="text-note text-ink-2" data-testid="pace">
      {pace.hint ? (
        <span className="mr-4 font-semibold text-glint-ink">
          {pace.hint.charAt(0).toUpperCase() + pace.hint.slice(1)}.
        </span>
      ) : pace.per_minute !== null && pace.minutes_without_break >= 1 ? (
        <span className="mr-4">
          {pace.per_minute.toFixed(1)} a minute, {minutes} min without a break
        </span>
      ) : null}
      {(stock.data ?? []).map((lot) =>
        lot.left === null ? null : (
          <span
            key={lot.name}
            className={`mr-4 ${lot.is_low ? "font-semibold text-glint-ink" : ""}`}
          >
            {lot.name}: {lot.left < 0 ? 0 : Number(lot.left.toPrecision(3))} {lot.unit} left
            {lot.counts_left === null
              ? ""
              : `, ${counted(Math.max(0, Math.floor(lot.counts_left)))} ${run.count_unit}`}
          </span>
        ),
      )}
    </p>
  );
}

function BreakTimer({ since }: { since: string }) {
  const [now, setNow] = useState(Date.now);
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), 1000);
    return () => clearInterval(timer);
  }, []);
  const seconds = Math.max(0, Math.round((now - Date.parse(since)) / 1000));
  const days = Math.floor(seconds / 86400);
  const words =
    days > 0
      ? plural(days, "day")
      : seconds >= 3600
        ? `${Math.floor(seconds / 3600)} h ${Math.floor((seconds % 3600) / 60)} min`
        : `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, "0")}`;
  return (
    <p className="text-lead font-semibold text-glint-ink" data-testid="break">
      Paused {words}. The next cut resumes.
    </p>
  );
}
