import { plural } from "../../domain/format";

/** Whether what was done is on the server's disk; said quietly. */
export function Connection({ away, waiting }: { away: boolean; waiting: number }) {
  if (away) {
    return (
      <span role="status" className="text-glint">
        Server away; {plural(waiting, "event")} kept here and sent when it is back
      </span>
    );
  }
  return <span role="status">{waiting ? `saving ${waiting}` : "all on disk"}</span>;
}
