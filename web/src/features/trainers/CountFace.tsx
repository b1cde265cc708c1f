import { type ReactNode, useEffect, useState } from "react";
import type { Round } from "../../api/trainers";

type Tap = Round["taps"][number];
const SHOWN_MS = 330;
const INTERRUPTS_MS = 1500;
const ENDS_AFTER_MS = 1200;

/** Cuts as they come, one by one; asked for once the last is over. */
export function CountFace({ taps, children }: { taps: readonly Tap[]; children: ReactNode }) {
  const [shown, setShown] = useState<Tap | null>(null);
  const [words, setWords] = useState("");
  const [isOver, setOver] = useState(false);
  useEffect(() => {
    const timers = taps.flatMap((tap) => [
      setTimeout(
        () => (tap.kind === "interruption" ? setWords(tap.words) : setShown(tap)),
        tap.at_ms,
      ),
      setTimeout(
        () => (tap.kind === "interruption" ? setWords("") : setShown(null)),
        tap.at_ms + (tap.kind === "interruption" ? INTERRUPTS_MS : SHOWN_MS),
      ),
    ]);
    const last = Math.max(...taps.map((tap) => tap.at_ms));
    timers.push(setTimeout(() => setOver(true), last + ENDS_AFTER_MS));
    return () => timers.forEach(clearTimeout);
  }, [taps]);
  return (
    <>
      <div
        className={`relative mt-3 flex h-64 items-center justify-center overflow-hidden rounded-edge
          border-[1.5px] border-ink ${shown?.kind === "cut" ? "bg-hemp" : "bg-sheet"}`}
      >
        <span className="text-answer font-extrabold" aria-live="off">
          {shown ? (shown.kind === "spoiled" ? "spoiled" : "cut") : isOver ? "over" : ""}
        </span>
        {shown?.kind === "spoiled" ? (
          <span className="absolute inset-x-0 bottom-6 text-center font-semibold text-rust">
            on the staple: does not count
          </span>
        ) : null}
        {words ? (
          <span className="absolute top-4 right-4 rounded-edge border-2 border-glint bg-paper px-4 py-3 text-lead font-semibold">
            {words}
          </span>
        ) : null}
      </div>
      {isOver ? children : <p className="mt-4 text-lead font-semibold">Count the cuts.</p>}
    </>
  );
}
