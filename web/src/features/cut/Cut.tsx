import { useMutation } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { Link, useParams } from "react-router";
import { api, body } from "../../api/client";
import { EdgeStrip } from "../../charts/EdgeStrip";
import { RopeAhead } from "../../charts/RopeAhead";
import { counted } from "../../domain/format";
import { marksAtBench } from "../../domain/strips";
import { WORDS } from "../../domain/words";
import { RunLog } from "../../parts/RunLog";
import { Mark } from "../../ui/Mark";
import { Failed, Waiting } from "../../ui/State";
import { useWidth } from "../../ui/useWidth";
import { Asking } from "./Asking";
import { BenchKeys } from "./BenchKeys";
import { HandAndStock, Holder, InstrumentLine, TesterStanding } from "./Beside";
import { type InstrumentNews, useBench } from "./bench";
import { bandOf, countSize, exposureWords, nextWords, seenHere, whyWords } from "./benchWords";
import { Connection } from "./Connection";
import { Ended } from "./Ended";
import { KeyLine } from "./KeyLine";
import { KeyPanel } from "./KeyPanel";
import { keepKeys, loadKeys } from "./keyChoice";
import { ReadingsChart } from "./ReadingsChart";
import { checkTone, setSound, soundIsOn } from "./sound";
import { useBenchKeys } from "./useBenchKeys";
import { useHand } from "./useHand";
import { useTurns } from "./useTurns";

type Panel = "chart" | "log" | "keys";

/** The bench: the count, what comes next, the reading; nothing covers the count. */
export function Cut() {
  const { runId = "" } = useParams();
  const [instrument, setInstrument] = useState<InstrumentNews | null>(null);
  const hears = useRef<(news: InstrumentNews) => void>(() => undefined);
  const { query, run, shown, waiting, log, queue, clockOffMin } = useBench(runId, (news) =>
    hears.current(news),
  );
  const hand = useHand(run, shown, log);
  hears.current = (news) => {
    if ((news.run_id ?? null) === (run?.practice ? run.id : null)) setInstrument(news);
    hand.heard(news);
  };
  const [panel, setPanel] = useState<Panel>("chart");
  const [keysOpen, setKeysOpen] = useState(false);
  const [keys, setKeys] = useState(loadKeys);
  const [sound, setSoundOn] = useState(soundIsOn);
  const field = useRef<HTMLInputElement>(null);
  const { ref, width } = useWidth<HTMLDivElement>(1200);
  const virtual = useMutation({
    mutationFn: () =>
      body(api.POST("/api/runs/{run_id}/virtual-reading", { params: { path: { run_id: runId } } })),
  });
  const due = Boolean(shown?.due);
  useEffect(() => {
    if (due) checkTone();
  }, [due]);
  useBenchLight();

  const turns = useTurns(run);
  const { ended, seeing } = hand;
  const turn = (to: Panel) => setPanel((p) => (p === to ? "chart" : to));
  const takeOver = () => {
    if (shown && !shown.holds) void log("takeover");
  };
  const accept = () => {
    if (shown?.holds && shown.proposals.ids.length)
      void log("accept", { targets: [...shown.proposals.ids] });
  };
  const readVirtual = () => {
    if (run?.practice && !virtual.isPending) virtual.mutate();
  };
  useBenchKeys({
    enabled: Boolean(run) && (!ended || hand.stropped) && hand.ask === null && !keysOpen,
    keys,
    field,
    onCut: ended ? () => undefined : hand.cut,
    onRead: hand.read,
    onTakeBack: hand.takeBack,
    onType: hand.digit,
    onClear: hand.clear,
    actions: ended
      ? { read: readVirtual }
      : {
          note: () => hand.setAsk("note"),
          stop: () => hand.setAsk("stop"),
          break: () => void log("pause"),
          spoiled: () => void log("spoiled", { cause: "" }),
          list: () => turn("log"),
          keys: () => turn("keys"),
          pieces: hand.pieces,
          other: turns.take,
          takeover: takeOver,
          accept,
          sound: () => {
            setSound(!sound);
            setSoundOn(!sound);
          },
          read: readVirtual,
          help: () => setKeysOpen(true),
          ...Object.fromEntries(hand.row.outcomes.map(({ key }) => [key, () => hand.say(key)])),
        },
  });

  if (!run && query.isPending) return <Waiting what="the run" />;
  if (!run || !shown)
    return (
      <Failed
        error={query.error ?? new Error("The run could not be read.")}
        onRetry={() => void query.refetch()}
      />
    );
  const step = run.card.recipe.find((each) => shown.count < each.ends_at);
  const unit = step ? "in all" : run.count_unit;
  const wide = width > 860;
  const byLength = WORDS.lengthUnits.some(([unit]) => unit === run.count_unit);
  const marks = marksAtBench(run.blade.edge);
  const changeKeys = (chosen: typeof keys) => {
    keepKeys(chosen);
    setKeys(chosen);
  };
  const side =
    panel === "log" ? (
      <RunLog run={run} log={log} />
    ) : panel === "keys" ? (
      <KeyPanel keys={keys} onKeys={changeKeys} onClose={() => setPanel("chart")} />
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
          {run.blade.mark === null ? null : <Mark mark={run.blade.mark} size={30} />}
          <span className="wide shrink-0 text-lead font-extrabold whitespace-nowrap">
            {run.blade.code}
          </span>
          <span className="truncate text-ink-2">
            edge {run.edge}
            {run.after_strop_of ? ", stropped back" : ""}
            <span className="max-bench:hidden"> · {run.trial.name}</span>
          </span>
          {run.practice ? (
            <span
              className={`shrink-0 rounded-edge border-[1.5px] border-glint px-2 font-bold
              text-glint`}
            >
              practice
            </span>
          ) : null}
        </div>
        <div className="flex items-center justify-end gap-4 text-note text-ink-2 bench:shrink-0">
          <Connection
            away={waiting.away}
            why={waiting.why}
            waiting={waiting.pending.filter((e) => e.device_sequence > 0).length}
            clockOffMin={clockOffMin}
          />
          <Link
            className="flex min-h-11 shrink-0 items-center underline underline-offset-4"
            to={`/trials/${run.trial.id}/line-up`}
          >
            Leave the bench
          </Link>
        </div>
      </header>

      <div
        className={`grid grid-cols-1 gap-x-8 bench:flex-1
        bench:grid-cols-[minmax(0,1fr)_minmax(0,500px)]`}
      >
        <div className="flex min-w-0 flex-col">
          <button
            type="button"
            onClick={ended ? undefined : hand.cut}
            disabled={ended}
            tabIndex={-1}
            aria-label={`${counted(shown.count)} ${unit}. Tap to count one more`}
            data-testid="count"
            className={`block w-full cursor-pointer text-left leading-[0.8] font-[840]
              tracking-[-0.035em] disabled:cursor-default`}
            style={{
              fontSize: countSize(counted(shown.count), width),
              fontStretch: "112%",
              minHeight: 160,
              paddingTop: "0.1em",
            }}
          >
            {counted(shown.count)}
          </button>
          <div className="mt-3 flex flex-wrap items-baseline gap-x-4 text-lead text-ink-2">
            <span>{unit}</span>
            {step ? (
              <span className="font-semibold text-ink">
                {step.medium}: {counted(shown.count - step.begins_at)} of{" "}
                {counted(step.ends_at - step.begins_at)} {step.unit}
              </span>
            ) : null}
            {ended ? null : <HandAndStock run={run} shown={shown} />}
          </div>
          {ended ? null : (
            <Holder
              run={run}
              shown={shown}
              onTakeOver={takeOver}
              onAccept={accept}
              onLeaveOut={() => {
                for (const id of shown.proposals.ids)
                  void log("correction", { target: id, becomes: null });
              }}
            />
          )}
          <div aria-live="polite" className="mt-3">
            <p
              data-testid="next"
              className={`text-[clamp(1.7rem,3.2vw,2.6rem)] leading-[1.1] font-semibold
                [font-stretch:88%] ${due ? "text-next" : ""}`}
            >
              {nextWords(run, shown)}
            </p>
            <div
              className={`mt-2 flex min-h-6 flex-wrap items-baseline gap-x-4 text-lead
              text-ink-2`}
            >
              {hand.wrong || turns.error ? (
                <span className="font-semibold text-rust">
                  {hand.wrong || turns.error?.message}
                </span>
              ) : seeing ? (
                <span className="font-semibold text-glint" role="status">
                  A {seeing}: tap the edge strip where it is, or type its mm from the heel and
                  Enter. {hand.typed ? `${hand.typed} mm. ` : ""}Its key again leaves the place
                  open.
                </span>
              ) : (
                <span>{whyWords(run, shown)}</span>
              )}
              {instrument || run.practice || ended ? (
                <InstrumentLine news={instrument} />
              ) : (
                <TesterStanding />
              )}
            </div>
          </div>
          {waiting.refused.map(({ event, message }) => (
            <p key={event.id} role="alert" className="mt-1 font-semibold text-rust">
              Not accepted: {message}.{" "}
              <button
                type="button"
                className="cursor-pointer underline"
                onClick={() => queue.forgetRefused()}
              >
                Understood
              </button>
            </p>
          ))}
        </div>
        {wide ? <div className="min-w-0">{side}</div> : null}
      </div>

      {ended ? (
        <Ended run={run} hand={hand} field={field} log={log} onVirtual={readVirtual} />
      ) : (
        <>
          {wide || !due ? (
            <RopeAhead
              count={shown.count}
              nextCheck={shown.nextAt}
              later={run.method.schedule === "adaptive" ? [] : run.card.checks_at}
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
                mark={run.blade.mark ?? 0}
                title={run.blade.code}
                edgeLengthMm={run.blade.edge_length_mm ?? null}
                edges={[
                  {
                    ...marks,
                    seen: [...marks.seen, ...seenHere(run)],
                    number: run.edge,
                    zoneFromMm: run.zone_from_mm,
                    zoneToMm: run.zone_to_mm,
                    cuts: shown.count,
                    worn: run.card.worn_share,
                    live: true,
                    label: exposureWords(run, shown.count),
                  },
                ]}
                width={seeing ? 470 : hand.row.outcomes.length > 3 ? 270 : byLength ? 350 : 420}
                fullCuts={Math.max(30, shown.count + 5)}
                detail
                onPlace={seeing ? hand.seenAt : undefined}
              />
            ) : null}
            {hand.ask ? (
              <Asking
                kind={hand.ask}
                words={hand.words}
                setWords={hand.setWords}
                onDone={() => hand.ask && hand.answer(hand.ask)}
                onAbandon={() => hand.answer("abandon")}
                onCancel={() => hand.setAsk(null)}
              />
            ) : (
              <BenchKeys
                field={field}
                hand={hand}
                keys={keys}
                due={due}
                practice={run.practice}
                byLength={byLength}
                paused={shown.pausedSince !== null}
                onBreak={() => void log("pause")}
                onSpoiled={() => void log("spoiled", { cause: "" })}
                onVirtual={readVirtual}
                onLog={() => turn("log")}
                onOther={run.alternates ? turns.take : null}
              />
            )}
          </div>
          {wide ? null : <div className="mt-4">{side}</div>}
          {keysOpen ? (
            <KeyLine
              keys={keys}
              sound={sound}
              practice={run.practice}
              onClose={() => setKeysOpen(false)}
            />
          ) : null}
        </>
      )}
    </div>
  );
}

/** Another light at the bench, and a screen that stays awake where the browser allows. */
function useBenchLight() {
  useEffect(() => {
    document.documentElement.classList.add("bench-dark");
    let lock: WakeLockSentinel | undefined;
    const wake = () => {
      if (document.visibilityState !== "visible") return;
      void navigator.wakeLock
        ?.request("screen")
        .then((held) => {
          lock = held;
        })
        .catch(() => undefined);
    };
    wake();
    // the browser lets go of it when the page is hidden
    document.addEventListener("visibilitychange", wake);
    return () => {
      document.removeEventListener("visibilitychange", wake);
      document.documentElement.classList.toggle(
        "bench-dark",
        window.matchMedia("(prefers-color-scheme: dark)").matches,
      );
      void lock?.release();
    };
  }, []);
}
