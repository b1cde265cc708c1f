import { useState } from "react";
import { useChange } from "../../api/changes";
import { readSeries } from "../../api/soaks";
import { plural } from "../../domain/format";
import { newId } from "../../domain/ids";
import { ImportProgress } from "../../parts/ImportProgress";
import { Button } from "../../ui/Button";
import { Note } from "../../ui/Note";
import { Notice } from "../../ui/Notice";
import { measuredPicture } from "./series";
import type { Soak } from "./soak";

/** Pictures that wait, measured like the last one that was measured by hand. */
export function Series({ soak }: { soak: Soak }) {
  const [id, setId] = useState(newId);
  const first = measuredPicture(soak.looks);
  const read = useChange(
    (picture: string) => readSeries(soak.id, picture, id),
    () => setId(newId()),
  );
  const told = read.data?.made;
  const waiting = soak.pictures.filter((picture) => picture.clock_h !== null).length;
  return (
    <div className="mt-3 max-w-2xl">
      {first && waiting && !read.isPending ? (
        <>
          <Button onClick={() => read.mutate(first.hash)}>
            Measure {plural(waiting, "picture")} like the one at {first.hours.toFixed(1)} h
          </Button>
          <Note className="mt-1">
            Its {plural(first.outlines, "outline")} and white card are carried to each: for pictures
            taken from one place.
          </Note>
        </>
      ) : null}
      {read.isPending ? (
        <ImportProgress id={id} stop="Stop here" cancelled="Stopping; what was measured stays" />
      ) : null}
      <Notice says={read.error?.message} />
      {told ? (
        <div role="status">
          <p>
            {told.is_cancelled ? "Stopped: " : ""}
            {plural(told.pictures, "picture")} measured, {plural(told.looks, "inspection")} saved.
          </p>
          <ul className="text-note text-ink-2">
            {told.not_read.map((left) => (
              <li key={left.picture}>
                The picture at {hourOf(soak, left.picture)} was left as it was: {left.why}.
              </li>
            ))}
          </ul>
        </div>
      ) : null}
    </div>
  );
}

const hourOf = (soak: Soak, hash: string) => {
  const hours = soak.pictures.find((picture) => picture.hash === hash)?.clock_h;
  return hours == null ? "no known hour" : `${hours.toFixed(1)} h`;
};
