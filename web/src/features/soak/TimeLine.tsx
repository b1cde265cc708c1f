import { useState } from "react";
import { Link } from "react-router";
import { useChange } from "../../api/changes";
import { folderAddress } from "../../api/folder";
import { addPictures, removePicture, takeFromCamera } from "../../api/soaks";
import { Button } from "../../ui/Button";
import { FilePick } from "../../ui/FilePick";
import { Notice } from "../../ui/Notice";
import { Heading } from "../../ui/Section";
import { refusedPictures } from "./refused";
import { Series } from "./Series";
import { uploadsOf } from "./series";
import type { Soak } from "./soak";

/** Pictures laid on the time line by their own times, that no look was read from yet. */
export function TimeLine({ soak }: { soak: Soak }) {
  const add = useChange((files: File[]) => addPictures(soak.id, files));
  const [sent, setSent] = useState<readonly [done: number, of: number] | null>(null);
  const addAll = async (files: File[]) => {
    let done = 0;
    try {
      for (const part of uploadsOf(files)) {
        setSent([done, files.length]);
        await add.mutateAsync(part);
        done += part.length;
      }
    } catch {
      // said beside the field; nothing after a part that was refused is sent
    } finally {
      setSent(null);
    }
  };
  const [taken, setTaken] = useState<number | null>(null);
  const camera = useChange(async () => {
    setTaken((await takeFromCamera(soak.id)).pictures);
  });
  const remove = useChange((hash: string) => removePicture(soak.id, hash));
  const pictures = [...soak.pictures].sort((a, b) => (a.clock_h ?? 1e9) - (b.clock_h ?? 1e9));
  const error = add.error ?? camera.error ?? remove.error;
  return (
    <section aria-label="Pictures not read yet" className="mt-8 border-t-[1.5px] border-ink pt-3">
      <div className="flex flex-wrap items-end justify-between gap-x-8 gap-y-2">
        <Heading>Pictures on the time line{pictures.length ? ", not read yet" : ""}</Heading>
        <div className="flex flex-wrap items-end gap-3">
          <FilePick
            label="Import from a folder, each at its own time"
            accept="image/jpeg,image/png,image/webp"
            onPick={(files) => void addAll(files)}
            isWrong={Boolean(add.error)}
          />
          <Button disabled={camera.isPending} onClick={() => camera.mutate(undefined)}>
            Import photos
          </Button>
        </div>
      </div>
      <Notice says={error ? refusedPictures(error) : undefined} className="mt-1 font-medium" />
      {sent && sent[1] > 1 ? (
        <p role="status" className="mt-1 text-ink-2">
          {sent[0]} of {sent[1]} pictures imported …
        </p>
      ) : null}
      {taken === 0 ? (
        <p role="status" className="mt-1 text-ink-2">
          No new photos.
        </p>
      ) : null}
      <Series soak={soak} />
      <ul className="mt-3 flex flex-wrap gap-3">
        {pictures.map((picture) => (
          <li key={picture.hash} className="rounded-edge border border-line p-1">
            <Link to={`/soak/${soak.id}/look?picture=${picture.hash}${hourOf(picture.clock_h)}`}>
              <img
                src={folderAddress(`/api/pictures/${picture.hash}`)}
                alt={`The blade ${told(picture.clock_h)}`}
                width={180}
                height={64}
                loading="lazy"
                className="h-16 w-45 object-cover"
              />
            </Link>
            <span className="flex items-center justify-between gap-2 text-note">
              {told(picture.clock_h)}
              <Button kind="quiet" onClick={() => remove.mutate(picture.hash)}>
                delete
              </Button>
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}

const told = (hours: number | null) =>
  hours === null ? "no time in it" : `at ${hours.toFixed(1)} h`;
const hourOf = (hours: number | null) => (hours === null ? "" : `&h=${hours.toFixed(3)}`);
