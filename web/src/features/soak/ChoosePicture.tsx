import { useChange } from "../../api/changes";
import { folderAddress } from "../../api/folder";
import { addPictures } from "../../api/soaks";
import { FilePick } from "../../ui/FilePick";
import { Notice } from "../../ui/Notice";
import { Heading } from "../../ui/Section";
import { refusedPictures } from "./refused";
import type { Soak } from "./soak";

/** A picture for a look: from this device, or from those on the time line. */
export function ChoosePicture({ soak, onPick }: { soak: Soak; onPick: (hash: string) => void }) {
  const add = useChange(async (files: File[]) => {
    const made = await addPictures(soak.id, files);
    if (made[0] && made.length === 1) onPick(made[0].hash);
  });
  return (
    <div className="max-w-3xl">
      <FilePick
        label="Pictures of this inspection, JPEG, PNG or WebP; location data is removed"
        accept="image/jpeg,image/png,image/webp"
        onPick={(files) => (files.length ? add.mutate(files) : undefined)}
        isWrong={Boolean(add.error)}
      />
      <Notice
        says={add.error ? refusedPictures(add.error) : undefined}
        className="mt-1 font-medium"
      />
      {add.isPending ? <p className="mt-1 text-ink-2">Saving …</p> : null}
      {soak.pictures.length ? (
        <>
          <Heading className="mt-4">On the time line, not read yet</Heading>
          <ul className="mt-2 flex flex-wrap gap-3">
            {soak.pictures.map((picture) => (
              <li key={picture.hash}>
                <button
                  type="button"
                  className="cursor-pointer rounded-edge border-[1.5px] border-line p-1 text-left"
                  onClick={() => onPick(picture.hash)}
                >
                  <img
                    src={folderAddress(`/api/pictures/${picture.hash}`)}
                    alt=""
                    width={200}
                    height={80}
                    loading="lazy"
                    className="h-20 w-50 object-cover"
                  />
                  <span className="text-note">
                    {picture.taken_at.replace("T", " ") || "no time in it"}
                  </span>
                </button>
              </li>
            ))}
          </ul>
        </>
      ) : null}
    </div>
  );
}
