import { useEffect, useRef, useState } from "react";
import { useParams } from "react-router";
import { RopeAhead } from "../../charts/RopeAhead";
import { PracticeStrip } from "../../parts/PracticeStrip";
import { Failed, Waiting } from "../../ui/State";
import { useWidth } from "../../ui/useWidth";
import { Asking } from "./Asking";
import { BenchHeader } from "./BenchHeader";
import { BenchKeys } from "./BenchKeys";
import { Holder } from "./Beside";
import { type InstrumentNews, useBench } from "./bench";
import { bandOf } from "./benchWords";
import { CountFace } from "./CountFace";
import { EdgeAtHand, isByLength } from "./EdgeAtHand";
import { Ended } from "./Ended";
import { KeyLine } from "./KeyLine";
import { NextSays } from "./NextSays";
import { NotAccepted } from "./NotAccepted";
import { SidePanel } from "./SidePanel";
import { checkTone } from "./sound";
import { useActions } from "./useActions";
import { useBenchKeys } from "./useBenchKeys";
import { useBenchLight } from "./useBenchLight";
import { useBenchSettings } from "./useBenchSettings";
import { handActions, useHand } from "./useHand";
import { useTurns } from "./useTurns";

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
    if ((news.run_id ?? null) === (run?.is_virtual ? run.id : null)) setInstrument(news);
    hand.heard(news);
  };
  const settings = useBenchSettings();
  const { keys, keysOpen } = settings;
  const field = useRef<HTMLInputElement>(null);
  const { ref, width } = useWidth<HTMLDivElement>(1200);
  const due = Boolean(shown?.due);
  useEffect(() => {
    if (due) checkTone();
  }, [due]);
  useBenchLight();

  const turns = useTurns(run);
  const { ended, seeing } = hand;
  const acts = useActions(run, shown, log);
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
      ? { read: acts.readVirtual }
      : {
          ...handActions(hand),
          break: acts.rest,
          spoiled: acts.spoiled,
          takeover: acts.takeOver,
          accept: acts.accept,
          read: acts.readVirtual,
          other: turns.take,
          ...settings.actions,
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
  const wide = width > 860;
  const side = <SidePanel {...{ run, shown, log, settings, width }} />;
  return (
    <div className="flex min-h-dvh flex-col bg-paper text-ink">
      <PracticeStrip />
      <div ref={ref} className="flex flex-1 flex-col px-4 pt-3 pb-3 bench:px-8">
        <BenchHeader run={run} waiting={waiting} clockOffMin={clockOffMin} />

        <div
          className={`grid grid-cols-1 gap-x-8 bench:flex-1
        bench:grid-cols-[minmax(0,1fr)_minmax(0,500px)]`}
        >
          <div className="flex min-w-0 flex-col">
            <CountFace {...{ run, shown, ended, width }} onCut={hand.cut} />
            {ended ? null : (
              <Holder
                run={run}
                shown={shown}
                onTakeOver={acts.takeOver}
                onAccept={acts.accept}
                onLeaveOut={acts.leaveOut}
              />
            )}
            <NextSays {...{ run, shown, hand, instrument }} wrong={turns.error?.message} />
            <NotAccepted refused={waiting.refused} onUnderstood={() => queue.forgetRefused()} />
          </div>
          {wide ? <div className="min-w-0">{side}</div> : null}
        </div>

        {ended ? (
          <Ended run={run} hand={hand} field={field} log={log} onVirtual={acts.readVirtual} />
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
              {wide || seeing ? <EdgeAtHand {...{ run, shown, hand }} /> : null}
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
                  isVirtual={run.is_virtual}
                  byLength={isByLength(run)}
                  paused={shown.pausedSince !== null}
                  onBreak={acts.rest}
                  onSpoiled={acts.spoiled}
                  onVirtual={acts.readVirtual}
                  onLog={settings.actions.list}
                  onOther={run.alternates ? turns.take : null}
                />
              )}
            </div>
            {wide ? null : <div className="mt-4">{side}</div>}
            {keysOpen ? (
              <KeyLine
                keys={keys}
                sound={settings.sound}
                isVirtual={run.is_virtual}
                onClose={settings.closeHelp}
              />
            ) : null}
          </>
        )}
      </div>
    </div>
  );
}
