import { useMutation } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { Link, useParams } from "react-router";
import { api, body } from "../../api/client";
import { EdgeStrip } from "../../charts/EdgeStrip";
import { RopeAhead } from "../../charts/RopeAhead";
import { counted, plural, typedNumber } from "../../domain/format";
import { Kbd } from "../../ui/Kbd";
import { Mark } from "../../ui/Mark";
import { Failed, Waiting } from "../../ui/State";
import { useWidth } from "../../ui/useWidth";
import { BenchKeys } from "./BenchKeys";
import { type Shown, useBench } from "./bench";
import { Ended } from "./Ended";
import { ReadingsChart } from "./ReadingsChart";
import { RunLog } from "./RunLog";
import { checkTone, setSound, soundIsOn } from "./sound";
import { useBenchKeys } from "./useBenchKeys";

type Ask = "note" | "stop" | null;

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
  const virtual = useMutation({
    mutationFn: () => body(api.POST("/api/runs/{run_id}/virtual-reading", { params: { path: { run_id: runId } } })),
    onSuccess: ({ force_gf }) => log("reading", { check: "force", value: force_gf, unit: "gf", source: "virtual" }),
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
  const cut = () => void log("cut", { amount: 1 });
  const read = () => {
    const value = typedNumber(typed);
    if (value === null) return;
    if (value === undefined || value < 1 || value > 5000) {
      setWrong(`“${typed}” cannot be a reading; 1 to 5000 gf can`);
      return;
    }
    setTyped("");
    setWrong(null);
    void log("reading", { check: "force", value, unit: "gf", source: "typed" });
  };
  const takeBack = () => {
    if (typed) setTyped(typed.slice(0, -1));
    else if (shown?.lastTakeable) void log("correction", { target: shown.lastTakeable.id, becomes: null });
  };
  const answer = (kind: "note" | "stop") => {
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
    onClear: () => setTyped(""),
    letters: {
      n: () => setAsk("note"),
      s: () => setAsk("stop"),
      b: () => void log("pause"),
      l: () => setPanel((p) => (p === "log" ? "chart" : "log")),
      m: () => {
        setSound(!sound);
        setSoundOn(!sound);
      },
      r: () => {
        if (run?.practice && !virtual.isPending) virtual.mutate();
      },
      "?": () => setKeysOpen(true),
    },
  });

  if (query.isPending) return <Waiting what="the run" />;
  if (!run || !shown)
    return (
      <Failed error={query.error ?? new Error("The run could not be read.")} onRetry={() => void query.refetch()} />
    );
  const unit = run.count_unit;
  const wide = width > 860;
  const worn = wornShare(shown, run.trial.dull_gf);
  return (
    <div ref={ref} className="flex min-h-dvh flex-col bg-paper px-4 pt-3 pb-3 text-ink bench:px-8">
      <header className="flex items-center justify-between gap-4">
        <div className="flex min-w-0 items-center gap-3">
          <Mark place={run.blade.place} size={30} />
          <span className="wide text-lead font-extrabold">{run.blade.code}</span>
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

      <div className="grid flex-1 grid-cols-1 gap-x-8 bench:grid-cols-[minmax(0,1fr)_minmax(0,500px)]">
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
          <p className="mt-3 text-lead text-ink-2">{unit}</p>
          <div aria-live="polite" className="mt-3">
            <p
              data-testid="next"
              className={`text-[clamp(1.7rem,3.2vw,2.6rem)] leading-[1.1] font-semibold [font-stretch:88%] ${due ? "text-next" : ""}`}
            >
              {nextWords(run, shown)}
            </p>
            <p className="mt-2 min-h-6 text-lead text-ink-2">
              {wrong ? <span className="font-semibold text-rust">{wrong}</span> : whyWords(run, shown)}
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
        <div className="min-w-0 max-bench:order-last">
          {panel === "log" ? (
            <RunLog run={run} log={log} />
          ) : (
            <ReadingsChart
              run={run}
              shown={shown}
              width={wide ? Math.min(500, width * 0.4) : width - 32}
              height={wide ? 330 : 250}
            />
          )}
        </div>
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
              width={width - (wide ? 64 : 32)}
              height={wide ? 106 : 96}
            />
          ) : null}
          <div className="mt-1 flex flex-wrap items-end justify-between gap-4">
            {wide ? (
              <EdgeStrip
                place={run.blade.place}
                title={run.blade.code}
                edgeLengthMm={run.blade.edge_length_mm ?? null}
                edges={[
                  {
                    number: run.edge,
                    zoneFromMm: run.zone_from_mm,
                    zoneToMm: run.zone_to_mm,
                    cuts: shown.count,
                    worn,
                    live: true,
                    label: exposureWords(run, shown.count),
                  },
                ]}
                width={470}
                fullCuts={Math.max(30, shown.count + 5)}
                detail
              />
            ) : null}
            {ask ? (
              <Asking
                kind={ask}
                words={words}
                setWords={setWords}
                onDone={() => answer(ask)}
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
                practice={run.practice}
                paused={run.state.status === "paused"}
                onCut={cut}
                onRead={read}
                onTakeBack={takeBack}
                onNote={() => setAsk("note")}
                onBreak={() => void log("pause")}
                onStop={() => setAsk("stop")}
                onVirtual={() => virtual.mutate()}
                onLog={() => setPanel((p) => (p === "log" ? "chart" : "log"))}
              />
            )}
          </div>
          {keysOpen ? <KeyLine sound={sound} practice={run.practice} onClose={() => setKeysOpen(false)} /> : null}
        </>
      )}
    </div>
  );
}

/** As large as the room allows, never under 160 px. */
function countSize(text: string, width: number): string {
  const room = width > 860 ? width - 600 : width - 40;
  return `${Math.max(160, Math.min(width > 860 ? 340 : 210, room / (0.66 * text.length)))}px`;
}

type RunData = NonNullable<ReturnType<typeof useBench>["run"]>;

function nextWords(run: RunData, shown: Shown): string {
  const { state } = run;
  if (state.status === "stopped") return "This run has ended";
  if (state.status === "abandoned") return "This run was abandoned";
  if (shown.due) {
    if (state.confirmation_wanted) return "Read once more to confirm";
    if (shown.count === 0 && shown.readings.length === 0)
      return `Wipe the fresh edge, take ${plural(shown.readingsWanted, "reading")}`;
    return `Check now: wipe, ${plural(shown.readingsWanted, "reading")}`;
  }
  if (shown.planning || !state.plan) return "Working out the next check";
  const more = state.plan.next_count - shown.count;
  const readings = state.plan.readings > 1 ? `, ${state.plan.readings} readings` : "";
  return more > 0 ? `Check after ${counted(more)} more${readings}` : "Cut on";
}

function whyWords(run: RunData, shown: Shown): string {
  const { state } = run;
  if (state.status === "paused") return "On a break. The next cut goes on.";
  const passed = Object.entries(state.stages).map(([stage, at]) => `${stage} passed at ${counted(at)}`);
  const why = state.plan && !shown.planning ? state.plan.why : "";
  const text = [why, ...passed].filter(Boolean).join("; ");
  return text ? `${text.charAt(0).toUpperCase()}${text.slice(1)}.` : "";
}

function bandOf(run: RunData): [number, number] | null {
  const { band_low = null, band_high = null } = run.state.plan ?? {};
  return band_low === null || band_high === null ? null : [band_low, band_high];
}

function exposureWords(run: RunData, count: number): string {
  const each = run.exposure_per_cut_mm2_per_mm;
  return each === null ? `${counted(count)} ${run.count_unit}` : `${Math.round(each * count)} mm²/mm`;
}

function wornShare(shown: Shown, dullGf: number): number {
  const forces = shown.readings.filter((r) => !r.struck).map((r) => r.forceGf);
  const [first] = forces;
  if (first === undefined || forces.length < 2) return 0;
  return Math.max(0, Math.min(1, (Math.max(...forces.slice(-2)) - first) / Math.max(dullGf - first, 1)));
}

function Connection({ away, waiting }: { away: boolean; waiting: number }) {
  if (away) {
    return (
      <span role="status" className="text-glint">
        Server away; {plural(waiting, "event")} kept here and sent when it is back
      </span>
    );
  }
  return <span role="status">{waiting ? `saving ${waiting}` : "all on disk"}</span>;
}

function Asking({
  kind,
  words,
  setWords,
  onDone,
  onCancel,
}: {
  kind: "note" | "stop";
  words: string;
  setWords: (w: string) => void;
  onDone: () => void;
  onCancel: () => void;
}) {
  return (
    <form
      className="flex flex-1 flex-wrap items-center justify-end gap-3"
      onSubmit={(e) => {
        e.preventDefault();
        onDone();
      }}
      onKeyDown={(e) => {
        if (e.key === "Escape") onCancel();
      }}
    >
      <input
        // biome-ignore lint/a11y/noAutofocus: it was just asked for, and the keys go here
        autoFocus
        value={words}
        onChange={(e) => setWords(e.target.value)}
        aria-label={kind === "note" ? "Note" : "Why stop here?"}
        placeholder={kind === "note" ? "What was seen" : "Why stop here? (can stay empty)"}
        className="min-h-16 min-w-60 flex-1 rounded-edge border-[1.5px] border-ink-2 bg-sheet px-4 text-lead"
      />
      <button
        type="submit"
        className="min-h-16 cursor-pointer rounded-edge bg-next px-6 text-lead font-semibold text-on-next"
      >
        {kind === "note" ? "Keep the note" : "Stop the run"}
      </button>
      <button type="button" onClick={onCancel} className="min-h-16 cursor-pointer px-4 underline underline-offset-4">
        Cut on
      </button>
    </form>
  );
}

function KeyLine({ sound, practice, onClose }: { sound: boolean; practice: boolean; onClose: () => void }) {
  useEffect(() => {
    const close = () => onClose();
    window.addEventListener("keydown", close, { once: true });
    return () => window.removeEventListener("keydown", close);
  }, [onClose]);
  const keys: Array<[string, string]> = [
    ["Space", "one cut"],
    ["0–9, Enter", "a reading in gf"],
    ["Backspace", "take back the last"],
    ["N", "note"],
    ["B", "break"],
    ["S", "stop"],
    ["L", "list of events, corrections"],
    ["M", sound ? "sound off" : "sound on"],
    ...(practice ? ([["R", "reading from the virtual bench"]] as Array<[string, string]>) : []),
  ];
  return (
    <p className="mt-3 flex flex-wrap gap-x-6 gap-y-2 border-t border-line pt-3 text-ink-2">
      {keys.map(([key, does]) => (
        <span key={key}>
          <Kbd>{key}</Kbd> {does}
        </span>
      ))}
    </p>
  );
}
