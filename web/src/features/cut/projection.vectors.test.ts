import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import type { Schemas } from "../../api/client";
import type { QueuedEvent } from "../../domain/tapQueue";
import { show } from "./projection";

type Run = Schemas["RunOut"];
type Logged = Pick<QueuedEvent, "id" | "kind" | "payload" | "count_at" | "client_time"> & {
  readonly device: string;
};

/** The same vectors that the server's fold is held to. */
interface Vector {
  readonly name: string;
  readonly before: readonly Logged[];
  readonly known: {
    readonly count: number;
    readonly holder: string | null;
    readonly paused_since: string | null;
    readonly proposals: Run["state"]["proposals"];
  };
  readonly unsent: readonly Logged[];
  readonly expects: {
    readonly count: number;
    readonly holds: boolean;
    readonly proposed: number;
    readonly paused: boolean;
    readonly readings: readonly (readonly [number, number])[];
  };
}

const file = new URL("../../../../tests/vectors/fold.json", import.meta.url);
const vectors = JSON.parse(readFileSync(file, "utf8")) as Vector[];

function known({ before, known: state }: Vector): Run {
  return {
    log: before.map((event, at) => ({ ...event, position: at + 1, not_understood: "" })),
    paused_since: state.paused_since,
    method: { check_rows: [] },
    card: { checks_at: [], readings: 1 },
    state: {
      count: state.count,
      holder: state.holder,
      proposals: state.proposals,
      status: state.paused_since ? "paused" : "cutting",
      checks: [],
      places_mm: [],
      withdrawn: [],
      asked: "force",
      plan: null,
      plan_is_current: true,
      readings_wanted: 0,
      confirmation_wanted: false,
    },
  } as unknown as Run;
}

describe("what the bench shows before it is sent", () => {
  it.each(vectors)("$name", (vector) => {
    const unsent = vector.unsent.map((event, at) => ({
      ...event,
      runId: "run",
      device_sequence: at + 1,
      last_seen_position: 0,
    })) as QueuedEvent[];
    const shown = show(known(vector), unsent, "phone");
    expect({
      count: shown.count,
      holds: shown.holds,
      proposed: shown.proposals.amount,
      paused: shown.pausedSince !== null,
      readings: shown.readings.map(({ count, forceGf }) => [count, forceGf]),
    }).toEqual(vector.expects);
  });
});
