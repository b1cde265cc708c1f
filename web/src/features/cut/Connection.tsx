import { plural } from "../../domain/format";

/** Whether what was done is on the server's disk; said quietly. */
export function Connection({
  away,
  why,
  waiting,
  clockOffMin,
}: {
  away: boolean;
  why: string;
  waiting: number;
  clockOffMin: number;
}) {
  if (away && why) {
    return (
      <span role="status" className="min-w-28 max-w-96 text-right leading-tight text-glint-ink">
        {plural(waiting, "event")} stored here: {why}
      </span>
    );
  }
  if (away) {
    return (
      <span role="status" className="min-w-28 text-right leading-tight text-glint-ink">
        Server not reachable; {plural(waiting, "event")} stored here
        <span className="max-bench:hidden"> and sent when it answers</span>
      </span>
    );
  }
  return (
    <span role="status" className="whitespace-nowrap">
      {clockOffMin ? (
        <span className="mr-3 whitespace-normal text-glint-ink">
          This device's clock is {spoken(Math.abs(clockOffMin))}{" "}
          {clockOffMin > 0 ? "ahead" : "behind"}; the list keeps its order
        </span>
      ) : null}
      {waiting ? `saving ${waiting}` : "all on disk"}
    </span>
  );
}

const spoken = (minutes: number) =>
  minutes >= 90 ? `${Math.round(minutes / 60)} h` : `${Math.round(minutes)} min`;
