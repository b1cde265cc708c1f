import { takeWaitingShots, useChange } from "../../api/changes";
import { Button } from "../../ui/Button";
import type { Place } from "./place";

/** Files that the analyser's folder brought, to be used. */
export function WaitingFiles({ place }: { place: Place }) {
  const newest = place.batches.find((b) => b.sent_on && !b.back_on)?.id ?? "";
  const take = useChange((id: string) => takeWaitingShots(id, newest));
  return (
    <section aria-label="Unused shots" className="mt-5 bg-sheet px-5 py-3">
      <h2 className="font-bold">From the analyser</h2>
      <ul>
        {place.waiting.map((file) => (
          <li key={file.id} className="flex flex-wrap items-center justify-between gap-4">
            <span>
              {file.name}:{" "}
              {Object.entries(file.shots)
                .map(([code, many]) => `${many} of ${code}`)
                .join(", ")}
            </span>
            <Button onClick={() => take.mutate(file.id)} disabled={take.isPending}>
              Import these shots
            </Button>
          </li>
        ))}
      </ul>
      {take.error ? <p className="text-rust">{take.error.message}</p> : null}
    </section>
  );
}
