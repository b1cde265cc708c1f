import { InstrumentLine, TesterStanding } from "./Beside";
import type { InstrumentNews, Run } from "./bench";
import { nextWords, whyWords } from "./benchWords";
import type { Shown } from "./projection";
import type { Hand } from "./useHand";

/** What comes next, why, and what an instrument says. */
export function NextSays({
  run,
  shown,
  hand,
  wrong,
  instrument,
}: {
  run: Run;
  shown: Shown;
  hand: Hand;
  wrong: string | undefined;
  instrument: InstrumentNews | null;
}) {
  const { ended, seeing } = hand;
  return (
    <div aria-live="polite" className="mt-3">
      <p
        data-testid="next"
        className={`text-[clamp(1.7rem,3.2vw,2.6rem)] leading-[1.1] font-semibold
          [font-stretch:88%] ${shown.due ? "text-next" : ""}`}
      >
        {nextWords(run, shown)}
      </p>
      <div
        className={`mt-2 flex min-h-6 flex-wrap items-baseline gap-x-4 text-lead
        text-ink-2`}
      >
        {hand.wrong || wrong ? (
          <span className="font-semibold text-rust">{hand.wrong || wrong}</span>
        ) : seeing ? (
          <span className="font-semibold text-glint-ink" role="status">
            A {seeing}: tap the edge strip where it is, or type its mm from the heel and Enter.{" "}
            {hand.typed ? `${hand.typed} mm. ` : ""}Its key again leaves the place open.
          </span>
        ) : (
          <span>{whyWords(run, shown)}</span>
        )}
        {instrument || run.is_virtual || ended ? (
          <InstrumentLine news={instrument} />
        ) : (
          <TesterStanding />
        )}
      </div>
    </div>
  );
}
