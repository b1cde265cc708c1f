import { describe, expect, it } from "vitest";
import type { Schemas } from "../../api/client";
import type { QueuedEvent } from "../../domain/tapQueue";
import { bandOf, countSize, exposureWords, nextWords, seenHere, whyWords } from "./benchWords";
import { acknowledged, show as project } from "./projection";

const show = (run: Run, pending: readonly QueuedEvent[], away = false) =>
  project(run, pending, "phone", away);

type Run = Schemas["RunOut"];
type State = Run["state"];

const fresh: State = {
  status: "cutting",
  count: 0,
  position: 1,
  checks: [],
  stages: {},
  plan: null,
  plan_is_current: true,
  confirmation_wanted: false,
  check_due: false,
  readings_wanted: 0,
  places_mm: [],
  asked: "force",
  asked_words: "force on the test line",
  asked_at_mm: null,
  stopped_by: null,
  withdrawn: [],
  holder: null,
  proposals: [],
  strokes: 0,
  checks_since: 0,
  rewritten_at: 0,
  not_understood: 0,
};

const METHOD = {
  name: "Force-limit rope series",
  checks: [{ kind: "force" }],
  check_rows: [],
  stages: [
    { name: "keen", check: "force", limit_gf: 300 },
    { name: "dull", check: "force", limit_gf: 400 },
  ],
  ends: [{ kind: "limit", stage: "dull" }],
} as unknown as Run["method"];

const plan = (next: number, readings = 1): NonNullable<State["plan"]> => ({
  next_count: next,
  readings,
  why: "dull (400 gf) is expected between 22 and 29",
  stage: "dull",
  band_low: 22,
  band_high: 29,
});

function run(state: Partial<State> = {}, log: Run["log"] = []): Run {
  return {
    id: "run",
    number: 1,
    practice: false,
    is_virtual: false,
    count_unit: "cuts",
    trial: {} as Run["trial"],
    method: METHOD,
    sealed: "",
    lot_change: "",
    block: 1,
    blade: { code: "A", mark: 0 } as Run["blade"],
    edge_id: "edge",
    edge: 3,
    state: { ...fresh, ...state },
    log,
    earlier_events: 0,
    zone_from_mm: null,
    zone_to_mm: null,
    exposure_per_cut_mm2_per_mm: null,
    found: null,
    card: {
      checks_at: [4, 8, 12],
      readings: 1,
      confirm_above_gf: 400,
      confirm_on_fail: false,
      worn_share: 0,
      recipe: [],
    },
    pace: { per_minute: null, minutes_without_break: 0, cuts_without_break: 0, hint: "" },
    paused_since: null,
    strop_back: [],
    abilities_back: [],
    alternates: false,
    after_strop_of: null,
    put_right: {},
    from_paper: "",
  };
}

let number = 0;
function made(kind: string, payload: Record<string, unknown>, count_at = 0): QueuedEvent {
  number += 1;
  const time = "2026-05-04T10:00:00+02:00";
  return {
    id: `e${number}`,
    runId: "run",
    kind,
    device: "phone",
    device_sequence: number,
    last_seen_position: 1,
    count_at,
    client_time: time,
    payload,
  };
}
const cut = () => made("cut", { amount: 1 });
const reading = (gf: number, at = 0) =>
  made("reading", { check: "force", value: gf, unit: "gf" }, at);
const logged = (e: QueuedEvent, position: number): Run["log"][number] => ({
  ...e,
  position,
  not_understood: "",
});

describe("what the bench shows while events are on their way", () => {
  it("is the server's count and the taps it has not answered", () => {
    expect(show(run({ count: 4 }), [cut(), cut()]).count).toBe(6);
  });

  it("never counts a tap twice that is answered but not yet off the queue", () => {
    const tap = cut();
    expect(show(run({ count: 5 }, [logged(tap, 9)]), [tap]).count).toBe(5);
  });

  it("takes back a tap that was sent, or one that was not", () => {
    const sent = cut();
    const waiting = cut();
    const back = (e: QueuedEvent) => made("correction", { target: e.id, becomes: null });
    expect(show(run({ count: 5 }, [logged(sent, 9)]), [back(sent)]).count).toBe(4);
    expect(show(run({ count: 5 }), [waiting, back(waiting)]).count).toBe(5);
  });

  it("lists readings on their way, and asks for fewer", () => {
    const state = { count: 4, plan: plan(4, 2), readings_wanted: 2 };
    const shown = show(run(state), [reading(210, 4)]);
    expect(shown.readings.map((r) => [r.forceGf, r.waiting])).toEqual([[210, true]]);
    expect([shown.due, shown.readingsWanted, shown.planning]).toEqual([true, 1, true]);
    expect(show(run(state), [reading(210, 4), reading(214, 4)]).due).toBe(false);
  });

  it("lets a check fall due by taps that the server has not seen", () => {
    const state = { count: 3, plan: plan(4), readings_wanted: 1 };
    expect(show(run(state), []).due).toBe(false);
    expect(show(run(state), [cut()]).due).toBe(true);
  });

  it("goes on by the bench card while the server is away", () => {
    const state = { count: 4, plan: plan(4), readings_wanted: 1 };
    const at = (...gf: number[]) =>
      show(
        run(state),
        gf.map((each) => reading(each, 4)),
        true,
      );
    expect([at(210).nextAt, at(210).due]).toEqual([8, false]);
    expect([at(430).confirming, at(430).due, at(430).readingsWanted]).toEqual([true, true, 1]);
    expect([at(430, 420).due, at(430, 420).nextAt]).toEqual([false, 8]);
    expect(show(run(state), [reading(210, 4), cut(), cut(), cut(), cut()], true).due).toBe(true);
  });

  it("proposes where another device holds the count, and counts once it may", () => {
    const held = run({ count: 5, holder: "laptop" });
    expect(show(held, [cut()])).toMatchObject({
      count: 5,
      holds: false,
      proposals: { amount: 1, own: 1 },
    });
    expect(show(held, [made("takeover", {}), cut()])).toMatchObject({ count: 6, holds: true });
    const proposed = { event_id: "p", device: "laptop", amount: 2 };
    const mine = run({ count: 5, holder: "phone", proposals: [proposed] });
    expect(show(mine, [made("accept", { targets: ["p"] })])).toMatchObject({
      count: 7,
      proposals: { amount: 0 },
    });
    expect(show(mine, [made("correction", { target: "p", becomes: null })])).toMatchObject({
      count: 5,
    });
  });

  it("lets go of the count over a break, and whoever cuts on holds it", () => {
    const paused = show(run({ count: 5, holder: "phone" }), [made("pause", {})]);
    expect(paused.pausedSince).not.toBeNull();
    expect(show(run({ count: 5, holder: "laptop" }), [made("pause", {}), cut()])).toMatchObject({
      count: 6,
      holds: true,
      pausedSince: null,
    });
  });

  it("offers the last standing cut or reading to be taken back", () => {
    const first = cut();
    const second = reading(200);
    const log = [logged(first, 2), logged(second, 3)];
    expect(show(run({}, log), []).lastTakeable?.id).toBe(second.id);
    expect(show(run({ withdrawn: [second.id] }, log), []).lastTakeable?.id).toBe(first.id);
    expect(show(run(), []).lastTakeable).toBeNull();
  });

  it("follows acknowledgements forward only", () => {
    const tap = cut();
    const ahead = run({ position: 12, count: 7 });
    const ack = (position: number, count: number) => ({
      position,
      duplicate: false,
      state: { ...fresh, position, count },
    });
    expect(acknowledged(ahead, tap, ack(10, 6))).toBe(ahead);
    const next = acknowledged(ahead, tap, ack(13, 8));
    expect([next.state.count, next.log.map((e) => e.id)]).toEqual([8, [tap.id]]);
    expect(acknowledged(next, tap, ack(13, 8)).log).toHaveLength(1);
  });
});

describe("what the bench says", () => {
  const said = (state: Partial<State>, pending: QueuedEvent[] = []) => {
    const now = run(state);
    return nextWords(now, show(now, pending));
  };
  it("is the one next thing", () => {
    expect(said({ plan: plan(0, 2), readings_wanted: 2 })).toBe(
      "Wipe the fresh edge, take 2 readings",
    );
    expect(said({ count: 17, plan: plan(20, 2), readings_wanted: 2 })).toBe(
      "Check after 3 more, 2 readings",
    );
    expect(said({ count: 20, plan: plan(20), readings_wanted: 1 })).toBe(
      "Check now: wipe, 1 reading",
    );
    expect(said({ count: 20, confirmation_wanted: true, readings_wanted: 1 })).toBe(
      "Read once more to confirm",
    );
    expect(said({ plan_is_current: false })).toBe("Working out the next check");
    expect(said({ status: "stopped" })).toBe("This run has ended");
    expect(said({ status: "abandoned" })).toBe("This run was abandoned");
  });

  it("gives the reason, and what was passed on the way", () => {
    const now = run({ count: 17, plan: plan(20), stages: { keen: 11 } });
    expect(whyWords(now, show(now, []))).toBe(
      "Dull (400 gf) is expected between 22 and 29; keen lost at 11.",
    );
    expect(bandOf(now)).toEqual([22, 29]);
    expect(bandOf(run())).toBeNull();
  });

  it("tells exposure where it is known, else the count", () => {
    expect(exposureWords(run(), 12)).toBe("12 cuts");
    expect(exposureWords({ ...run(), exposure_per_cut_mm2_per_mm: 12.566 }, 10)).toBe("126 mm²/mm");
  });

  it("gives every reading its station, the ones not sent yet too", () => {
    const at = run({ places_mm: [20, 44, 68], plan: plan(0, 3), readings_wanted: 3 });
    const places = [0, 1, 2, 3].map((unsent) => {
      const pending = Array.from({ length: unsent }, () => made("reading", { value: 150 }));
      return show(at, pending, true).placeMm;
    });
    expect(places).toEqual([20, 44, 68, 20]);
    expect(show(run({}), []).placeMm).toBeNull();
  });

  it("asks for what the method asks: tries of paper, the lamp, a place on the edge", () => {
    const asks = (asked: State["asked"], wanted: number, at: number | null = null) => {
      const due = run({
        asked,
        places_mm: at === null ? [] : [at],
        plan: plan(0, wanted),
        readings_wanted: wanted,
      });
      return nextWords(due, show(due, []));
    };
    expect(asks("paper", 2)).toBe("Check now: wipe, does it slice the held paper, 2 tries");
    expect(asks("inspect", 1)).toBe("Check now: wipe, look along the apex under the lamp");
    expect(asks("depth", 1)).toBe("Check now: the depth of this cycle");
    expect(asks("force", 3, 44)).toBe("Wipe the fresh edge, take 3 readings, the next at 44 mm");
  });

  it("lays an unsent look over what the server knows, and asks for the try that is left", () => {
    const due = run({ asked: "paper", plan: plan(0, 2), readings_wanted: 2 });
    const shown = show(due, [made("outcome", { check: "paper", outcome: "pass" })]);
    expect(shown.looks).toMatchObject([{ kind: "paper", outcome: "pass" }]);
    expect([shown.due, shown.readingsWanted]).toEqual([true, 1]);
    const lamp = show(due, [made("outcome", { check: "inspect", outcome: "glint" })]);
    expect(lamp.looks).toMatchObject([{ outcome: "fail", seen: "glint" }]);
    expect(lamp.readingsWanted).toBe(2);
  });

  it("puts what the lamp showed at its place on the strip, nothing struck or clean", () => {
    const look = (seen: string, position_mm: number | null, struck = false) =>
      ({ kind: "inspect", seen, position_mm, struck }) as State["checks"][number];
    const seen = run({
      checks: [look("glint", 33), look("clean", 40), look("chip", 50, true), look("roll", null)],
    });
    expect(seenHere(seen)).toEqual([{ atMm: 33, kind: "glint" }]);
  });

  it("keeps the count at least 160 px high, however many digits", () => {
    for (const digits of ["7", "42", "1234", "123456"]) {
      for (const width of [390, 1280, 1920])
        expect(Number.parseFloat(countSize(digits, width))).toBeGreaterThanOrEqual(160);
    }
  });
});
