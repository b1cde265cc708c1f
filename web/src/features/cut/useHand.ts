import { useState } from "react";
import type { Schemas } from "../../api/client";
import type { PayloadOf } from "../../api/events";
import { FORCE, rowOf } from "../../domain/checks";
import { quoted, typedNumber } from "../../domain/format";
import { LIMITS } from "../../domain/limits.gen";
import type { InstrumentNews, Log } from "./bench";
import type { Shown } from "./projection";
import { typedReadings } from "./typedReadings";

type Run = Schemas["RunOut"];
export type Hand = ReturnType<typeof useHand>;
export type Ask = "note" | "stop" | null;

/** What the lamp showed, at the count at which its key was pressed. */
interface Finding {
  readonly outcome: string;
  readonly countAt: number;
}

type Reading = PayloadOf<"reading">;
const { default: USUAL_PIECES, most: MOST_PIECES } = LIMITS.pieces_at_once;

/** What a hand does at the bench, as events of the log. */
export function useHand(run: Run | undefined, shown: Shown | null, log: Log) {
  const [typed, setTyped] = useState("");
  const [wrong, setWrong] = useState<string | null>(null);
  const [ask, setAsk] = useState<Ask>(null);
  const [words, setWords] = useState("");
  const [finding, setFinding] = useState<Finding | null>(null);
  const seeing = finding?.outcome ?? null;
  const [taken, setTaken] = useState("");
  const asked = run?.state.asked ?? "force";
  const row = rowOf(run?.method.check_rows ?? [], asked);
  const inspects = row.result === "damage";
  const ended = run?.state.status === "stopped" || run?.state.status === "abandoned";
  const stropped = run?.state.status === "stopped" && run.state.strokes > 0;
  const place = shown?.placeMm == null ? {} : { position_mm: shown.placeMm };
  const needsPlace = (run?.method.stations_mm ?? []).length > 0;
  const piece = run?.method.piece ?? 1;

  const cut = () => void log("cut", { amount: piece });
  const pieces = () => {
    const many = typed === "" ? USUAL_PIECES : typedNumber(typed);
    if (typeof many !== "number" || !Number.isInteger(many) || many < 1 || many > MOST_PIECES) {
      setWrong(`${quoted(typed)} cannot be whole pieces; 1 to ${MOST_PIECES} can`);
      return;
    }
    setTyped("");
    setWrong(null);
    void log("cut", { amount: many * piece });
  };
  const look = (outcome: string, where: { position_mm?: number }, countAt?: number) => {
    if (needsPlace && where.position_mm === undefined) {
      setWrong("Say where on the edge: this method checks at its stations");
      return;
    }
    const picture = inspects && taken ? { picture: taken } : {};
    const payload = { check: asked, outcome, ...where, ...picture } as PayloadOf<"outcome">;
    void log("outcome", payload, undefined, countAt);
    setTaken("");
  };
  const say = (outcome: string) => {
    if (!row.is_judged) return;
    setWrong(null);
    const isFinding = inspects && outcome !== "clean";
    if (isFinding && finding?.outcome !== outcome) {
      setFinding({ outcome, countAt: shown?.count ?? 0 });
      return;
    }
    setFinding(null);
    look(outcome, place, isFinding ? finding?.countAt : undefined);
  };
  const seenAt = (position_mm: number) => {
    if (finding) look(finding.outcome, { position_mm }, finding.countAt);
    setFinding(null);
    setTyped("");
  };
  const read = () => {
    const reads = stropped ? FORCE : row;
    const found = typedReadings(typed, { reads, isPlace: Boolean(seeing), stropped });
    if (!found) return;
    if ("placeMm" in found) return seenAt(found.placeMm);
    if ("wrong" in found) return setWrong(found.wrong);
    type("");
    for (const value of found.values)
      void log("reading", reading(value, reads.unit, { source: "typed" }));
  };
  const reading = (value: number, unit: string, from: Partial<Reading>): Reading =>
    stropped
      ? { check: "force", value, unit: "gf", stage: "strop", ...from }
      : {
          check: asked as Reading["check"],
          value,
          unit: (unit || null) as Reading["unit"],
          ...from,
          ...place,
        };
  const takeBack = () => {
    if (typed) setTyped(typed.slice(0, -1));
    else if (shown?.lastTakeable)
      void log("correction", { target: shown.lastTakeable.id, becomes: null });
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
  /**
   * An instrument spoke: a stable reading is recorded by the device that holds the count, all else
   * is only shown.
   */
  const heard = (news: InstrumentNews) => {
    if (!run || !shown?.holds || (news.run_id ?? null) !== (run.is_virtual ? run.id : null)) return;
    if (news.what === "pedal" && !ended) cut();
    if (
      news.what === "reading" &&
      news.kind === "force" &&
      (asked === "force" || stropped) &&
      (!ended || stropped)
    ) {
      const from = {
        source: run.is_virtual ? "virtual" : "instrument",
        instrument: news.name,
        line: news.text,
      };
      void log("reading", reading(news.value ?? 0, "gf", from), news.reading_id);
    }
    if (news.what === "picture") {
      // Of the look just made here, else of the one to come.
      const last = run.state.checks.filter((c) => c.seen && !c.struck).at(-1);
      if (last && last.count === shown.count && !shown.due)
        void log("correction", { target: last.event_id, becomes: { picture: news.picture } });
      else setTaken(news.picture);
    }
  };
  /** A digit where a scale is asked for says its grade; else it begins a reading. */
  const digit = (text: string) => {
    const grade = row.result === "scale" && row.outcomes.find(({ letter }) => letter === text);
    if (grade && !stropped) say(grade.key);
    else append(text);
  };
  const type = (text: string) => {
    setTyped(text);
    setWrong(null);
  };
  const append = (text: string) => {
    setTyped((before) => before + text);
    setWrong(null);
  };
  const clear = () => {
    setTyped("");
    setFinding(null);
  };
  return {
    typed, wrong, ask, words, seeing, asked, row, ended, stropped,
    cut, pieces, say, seenAt, read, takeBack, answer, heard, type, digit, clear, setAsk, setWords,
  }; // biome-ignore format: one line for what is shown, one for what is done
}

/** The keys that act on what the hand does. */
export const handActions = (hand: Hand) => ({
  note: () => hand.setAsk("note"),
  stop: () => hand.setAsk("stop"),
  pieces: hand.pieces,
  ...Object.fromEntries(hand.row.outcomes.map(({ key }) => [key, () => hand.say(key)])),
});
