import { useQuery } from "@tanstack/react-query";
import { putShotsAside, useChange } from "../../api/changes";
import { shotsQuery } from "../../api/queries";
import { day, plural } from "../../domain/format";
import { Button } from "../../ui/Button";
import { Notice } from "../../ui/Notice";
import { Section } from "../../ui/Section";

/** Shots that an analyser wrote and that nothing has used yet. */
export function WaitingShots() {
  const shots = useQuery(shotsQuery);
  const aside = useChange(putShotsAside);
  if (!shots.data?.length) return null;
  return (
    <Section title="Unused shots" className="mt-8">
      <ul>
        {shots.data.map((file) => (
          <li
            key={file.id}
            className="flex flex-wrap items-baseline gap-x-5 border-b border-line py-2"
          >
            <span className="font-semibold">{file.name}</span>
            <span className="text-ink-2">
              {Object.entries(file.shots)
                .map(([code, many]) => `${code}: ${plural(many, "shot")}`)
                .join(", ")}
              ; read {day(file.read_utc)}
            </span>
            <Button kind="quiet" onClick={() => aside.mutate(file.id)} disabled={aside.isPending}>
              Dismiss
            </Button>
          </li>
        ))}
      </ul>
      <Notice says={aside.error?.message} className="mt-1" />
    </Section>
  );
}
