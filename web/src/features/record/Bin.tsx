import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useChange } from "../../api/changes";
import { binQuery, bringBack, deleteForGood } from "../../api/record";
import { day } from "../../domain/format";
import { Button } from "../../ui/Button";
import { Notice } from "../../ui/Notice";
import { Failed, Waiting } from "../../ui/State";

/** What was taken away, for as long as it can be brought back. */
export function Bin() {
  const bin = useQuery(binQuery);
  const [sure, setSure] = useState("");
  const back = useChange(bringBack);
  const gone = useChange(deleteForGood);
  if (bin.isPending) return <Waiting what="the bin" />;
  if (bin.isError) return <Failed error={bin.error} onRetry={() => void bin.refetch()} />;
  const wrong = back.error ?? gone.error;
  return (
    <div className="mx-auto max-w-[1000px] px-4 pt-6 bench:px-7">
      <h1 className="answer">
        {bin.data.length
          ? "In the bin"
          : "The bin is empty. What you delete can be restored for 30 days."}
      </h1>
      <Notice says={wrong?.message} className="mt-3 font-medium" />
      <ul className="mt-5">
        {bin.data.map((entry) => (
          <li
            key={entry.id}
            className="flex flex-wrap items-center gap-x-6 gap-y-1 border-t border-line py-2"
          >
            <span className="min-w-0 flex-1">
              <b>{entry.name}</b>{" "}
              <span className="text-ink-2">
                {entry.kind}
                {entry.holds.length ? `, with ${entry.holds.join(", ")}` : ""}
              </span>
              <span className="block text-note text-ink-2">
                {[
                  `deleted ${day(entry.binned_utc)}${entry.by ? ` by ${entry.by}` : ""}`,
                  entry.reason,
                  `deleted for good on ${day(entry.goes_on)}`,
                ]
                  .filter(Boolean)
                  .join(" · ")}
              </span>
            </span>
            <Button onClick={() => back.mutate(entry.id)}>Restore</Button>
            {sure === entry.id ? (
              <Button kind="danger" onClick={() => gone.mutate(entry.id)}>
                Delete for good: this cannot be undone
              </Button>
            ) : (
              <Button kind="quiet" onClick={() => setSure(entry.id)}>
                Delete for good
              </Button>
            )}
          </li>
        ))}
      </ul>
    </div>
  );
}
