import { useMutation } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { Link, useParams } from "react-router";
import { api, body } from "../../api/client";
import { EdgeStrip } from "../../charts/EdgeStrip";
import { RopeAhead } from "../../charts/RopeAhead";
import { counted, typedNumber } from "../../domain/format";
import { marksOf } from "../../domain/strips";
import { Mark } from "../../ui/Mark";
import { Failed, Waiting } from "../../ui/State";
import { useWidth } from "../../ui/useWidth";
import { Asking } from "./Asking";
import { BenchKeys } from "./BenchKeys";
import { useBench } from "./bench";
import { bandOf, countSize, exposureWords, isJudged, nextWords, seenHere, whyWords, wornShare } from "./benchWords";
import { Connection } from "./Connection";
import { Ended } from "./Ended";
import { KeyLine } from "./KeyLine";
import { OUTCOMES, SEEN } from "./LookKeys";
import { ReadingsChart } from "./ReadingsChart";
import { RunLog } from "./RunLog";
import { checkTone, setSound, soundIsOn } from "./sound";
import { useBenchKeys } from "./useBenchKeys";

type Ask = "note" | "stop" | null;

const RANGES: Record<string, readonly [number, number, string]> = {
  effort: [0, 10, ""],
  rank: [1, 100, ""],
  depth: [0, 1000, "mm"],
};

/** The bench: the count, what comes next, the reading; nothing covers the count. */
export function Cut() {
  const { runId = "" } = useParams();
  const { query, run, shown, waiting, log, queue } = useBench(runId);
  const [typed, setTyped] = useState("");
  const [wrong, setWrong] = useState<string | null>(null);
  const [ask, setAsk] = useState<Ask>(null);
  const [words, setWords] = useState("");
  const [panel, setPanel] = useState<"chart" | "log">("chart");
  const [keysOpen, setKeysOpen] = useState(false);
  const [sound, setSoundOn] = useState(soundIsOn);
  const field = useRef<HTMLInputElement>(null);
  const { ref, width } = useWidth<HTMLDivElement>(1200);
  const place = run?.state.asked_at_mm === null ? {} : { position_mm: run?.state.asked_at_mm };
  const virtual = useMutation({
    mutationFn: () => body(api.POST("/api/runs/{run_id}/virtual-reading", { params: { path: { run_id: runId } } })),
    onSuccess: ({ force_gf }) =>
      log("reading", { check: "force", value: force_gf, unit: "gf", source: "virtual", ...place }),
  });
  const due = Boolean(shown?.due);
  useEffect(() => {
    if (due) checkTone();
  }, [due]);
  useEffect(() => {
    document.documentElement.classList.add("bench-dark");
    const screen = navigator.wakeLock?.request("screen").catch(() => undefined);
    return () => {
      document.documentElement.classList.toggle(
        "bench-dark",
        window.matchMedia("(prefers-color-scheme: dark)").matches,
      );
      void screen?.then((lock) => lock?.release());
    };
  }, []);

  const ended = run?.state.status === "stopped" || run?.state.status === "abandoned";
  const asked = run?.state.asked ?? "force";
  const cut = () => void log("cut", { amount: run?.method.piece ?? 1 });
  const [seeing, setSeeing] = useState<string | null>(null);
  const say = (outcome: string) => {
    if (!isJudged(asked)) return;
    const where = asked === "inspect" && outcome !== "clean" && seeing !== outcome;
    setWrong(null);
    setSeeing(where ? outcome : null);
    if (!where) void log("outcome", { check: asked, outcome, ...place });
  };
  const seenAt = (position_mm: number) => {
    if (seeing) void log("outcome", { check: "inspect", outcome: seeing, position_mm });
    setSeeing(null);
    setTyped("");
  };
  const read = () => {
    const value = typedNumber(typed);
    if (value === null) return;
    if (seeing && typeof value === "number" && value >= 0 && value <= 2000) {
      seenAt(value);
      return;
    }
    if (isJudged(asked)) {
      setWrong("This check is said by its keys, not in figures");
      return;
    }
    const [low, high, unit] = RANGES[asked] ?? [1, 5000, "gf"];
    if (value === undefined || value < low || value > high) {
      setWrong(`“${typed}” cannot be a reading; ${low} to ${high} ${unit} can`);
      return;
    }
    setTyped("");
    setWrong(null);
    void log("reading", { check: asked, value, unit: unit || null, source: "typed", ...place });
  };
  const takeBack = () => {
    if (typed) setTyped(typed.slice(0, -1));
    else if (shown?.lastTakeable) void log("correction", { target: shown.lastTakeable.id, becomes: null });
  };
  const answer = (kind: "note" | "stop" | "abandon") => {
    if (kind === "abandon" && !words.trim()) {
      setWrong("Give a reason to abandon the run: it stays in the record");
      return;
    }
    if (kind === "abandon") void log("abandon", { reason: words.trim() });
    if (kind === "note" && words.trim()) void log("note", { text: words.trim() });
    if (kind === "stop") void log("stop", { by: "tester", reason: words.trim() });
    setWords("");
    setAsk(null);
  };
  useBenchKeys({
    enabled: Boolean(run) && !ended && ask === null && !keysOpen,
    field,
    onCut: cut,
    onRead: read,
    onTakeBack: takeBack,
    onType: (text) => {
      setTyped((t) => t + text);
      setWrong(null);
    },
    onClear: () => {
      setTyped("");
      setSeeing(null);
    },
    letters: {
      n: () => setAsk("note"),
      s: () => setAsk("stop"),
      b: () => void log("pause"),
      x: () => void log("spoiled", { cause: "" }),
      l: () => setPanel((p) => (p === "log" ? "chart" : "log")),
      m: () => {
        setSound(!sound);
        setSoundOn(!sound);
      },
      r: () => {
        if (run?.practice && !virtual.isPending) virtual.mutate();
      },
      "?": () => setKeysOpen(true),
      ...Object.fromEntries(
        (asked === "inspect" ? SEEN : isJudged(asked) ? OUTCOMES : []).map(([key, outcome]) => [
          key,
          () => say(outcome),
        ]),
      ),
    },
  });

  if (query.isPending) return <Waiting what="the run" />;
  if (!run || !shown)
    return (
      <Failed error={query.error ?? new Error("The run could not be read.")} onRetry={() => void query.refetch()} />
    );
  const unit = run.count_unit;
  const wide = width > 860;
  const worn = wornShare(run, shown);
  const mark = run.trial.is_blind && !run.practice ? 0 : run.blade.mark;
  const side =
    panel === "log" ? (
      <RunLog run={run} log={log} />
    ) : (
      <ReadingsChart
        run={run}
        shown={shown}
        width={wide ? Math.min(500, width * 0.4) : width - 32}
        height={wide ? 330 : 250}
      />
    );
  return (
    <div ref={ref} className="flex min-h-dvh flex-col bg-paper px-4 pt-3 pb-3 text-ink bench:px-8">
      <header className="flex items-center justify-between gap-4">
        <div className="flex min-w-0 items-center gap-3">
          {run.shown_as === run.blade.code ? <Mark mark={mark} size={30} /> : null}
          <span className="wide shrink-0 text-lead font-extrabold whitespace-nowrap">{run.shown_as}</span>
          <span className="truncate text-ink-2">
            edge {run.edge} · {run.trial.name}
          </span>
          {run.practice ? (
            <span className="shrink-0 rounded-edge border-[1.5px] border-glint px-2 font-bold text-glint">
              practice
            </span>
          ) : null}
        </div>
        <div className="flex shrink-0 items-center gap-4 text-note text-ink-2">
          <Connection away={waiting.away} waiting={waiting.pending.length} />
          <Link
            className="flex min-h-11 items-center underline underline-offset-4"
            to={`/trials/${run.trial.id}/line-up`}
          >
            Leave the bench
          </Link>
        </div>
      </header>

      <div className="grid grid-cols-1 gap-x-8 bench:flex-1 bench:grid-cols-[minmax(0,1fr)_minmax(0,500px)]">
        <div className="flex min-w-0 flex-col">
          <button
            type="button"
            onClick={ended ? undefined : cut}
            disabled={ended}
            tabIndex={-1}
            aria-label={`${counted(shown.count)} ${unit}. Tap to count one more`}
            data-testid="count"
            className="block w-full cursor-pointer text-left leading-[0.8] font-[840] tracking-[-0.035em] disabled:cursor-default"
            style={{
              fontSize: countSize(counted(shown.count), width),
              fontStretch: "112%",
              minHeight: 160,
              paddingTop: "0.1em",
            }}
          >
            {counted(shown.count)}
          </button>
          <p className="mt-3 text-lead text-ink-2">
            {unit}
            {run.recipe_now ? <span className="ml-4 font-semibold text-ink">{run.recipe_now}</span> : null}
          </p>
          <div aria-live="polite" className="mt-3">
            <p
              data-testid="next"
              className={`text-[clamp(1.7rem,3.2vw,2.6rem)] leading-[1.1] font-semibold [font-stretch:88%] ${due ? "text-next" : ""}`}
            >
              {nextWords(run, shown)}
            </p>
            <p className="mt-2 min-h-6 text-lead text-ink-2">
              {wrong ? (
                <span className="font-semibold text-rust">{wrong}</span>
              ) : seeing ? (
                <span className="font-semibold text-glint" role="status">
                  A {seeing}: tap the edge strip where it is, or type its mm from the heel and Enter.{" "}
                  {typed ? `${typed} mm. ` : ""}Its key again leaves the place open.
                </span>
              ) : (
                whyWords(run, shown)
              )}
            </p>
          </div>
          {waiting.refused.map(({ event, message }) => (
            <p key={event.id} role="alert" className="mt-1 font-semibold text-rust">
              Not taken: {message}.{" "}
              <button type="button" className="cursor-pointer underline" onClick={() => queue.forgetRefused()}>
                Understood
              </button>
            </p>
          ))}
        </div>
        {wide ? <div className="min-w-0">{side}</div> : null}
      </div>

      {ended ? (
        <Ended run={run} />
      ) : (
        <>
          {wide || !due ? (
            <RopeAhead
              count={shown.count}
              nextCheck={run.state.plan?.next_count ?? null}
              band={bandOf(run)}
              bandName={run.state.plan?.stage ?? ""}
              board={run.method.medium === "board" || run.method.medium === "card"}
              width={width - (wide ? 64 : 32)}
              height={106}
            />
          ) : null}
          <div className="mt-1 flex flex-wrap items-end justify-between gap-4">
            {wide || seeing ? (
              <EdgeStrip
                mark={mark}
                title={run.shown_as}
                edgeLengthMm={run.blade.edge_length_mm ?? null}
                edges={[
                  {
                    ...marksOf(run.blade, run.edge),
                    seen: [...marksOf(run.blade, run.edge).seen, ...seenHere(run)],
                    number: run.edge,
                    zoneFromMm: run.zone_from_mm,
                    zoneToMm: run.zone_to_mm,
                    cuts: shown.count,
                    worn,
                    live: true,
                    label: exposureWords(run, shown.count),
                  },
                ]}
                width={seeing ? 470 : asked === "inspect" ? 270 : 420}
                fullCuts={Math.max(30, shown.count + 5)}
                detail
                onPlace={seeing ? seenAt : undefined}
              />
            ) : null}
            {ask ? (
              <Asking
                kind={ask}
                words={words}
                setWords={setWords}
                onDone={() => answer(ask)}
                onAbandon={() => answer("abandon")}
                onCancel={() => setAsk(null)}
              />
            ) : (
              <BenchKeys
                field={field}
                typed={typed}
                onTyped={(text) => {
                  setTyped(text);
                  setWrong(null);
                }}
                due={due}
                asked={asked}
                placing={seeing !== null}
                onSay={say}
                practice={run.practice}
                paused={run.state.status === "paused"}
                onCut={cut}
                onRead={read}
                onTakeBack={takeBack}
                onNote={() => setAsk("note")}
                onBreak={() => void log("pause")}
                onSpoiled={() => void log("spoiled", { cause: "" })}
                onStop={() => setAsk("stop")}
                onVirtual={() => virtual.mutate()}
                onLog={() => setPanel((p) => (p === "log" ? "chart" : "log"))}
              />
            )}
          </div>
          {wide ? null : <div className="mt-4">{side}</div>}
          {keysOpen ? <KeyLine sound={sound} practice={run.practice} onClose={() => setKeysOpen(false)} /> : null}
        </>
      )}
    </div>
  );
}
