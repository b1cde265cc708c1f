import { useState } from "react";
import { deletePhoto, sendForm, useChange } from "../../api/changes";
import { Refused, type Schemas } from "../../api/client";
import { folderAddress } from "../../api/folder";
import { Note } from "../../ui/Note";
import { Notice } from "../../ui/Notice";
import { Section } from "../../ui/Section";
import { TextButton } from "../../ui/TextButton";

/** Pictures of a blade, kept as they were handed in. */
export function Photos({
  blade,
  photos,
}: {
  blade: Schemas["BladeOut"];
  photos: Schemas["PhotoOut"][];
}) {
  const [caption, setCaption] = useState("");
  const send = useChange(
    (file: File) => {
      const form = new FormData();
      form.append("photo", file, file.name);
      form.append("caption", caption);
      return sendForm(`/api/blades/${blade.id}/photos`, form);
    },
    () => setCaption(""),
  );
  const remove = useChange((hash: string) => deletePhoto(blade.id, hash));
  const said =
    send.error instanceof Refused ? send.error.problem.faults?.[0]?.message : send.error?.message;
  return (
    <Section title="Pictures">
      <ul className="mt-2 flex flex-wrap gap-3">
        {photos.map((p) => (
          <li key={p.hash} className="w-56">
            <a href={folderAddress(`/api/pictures/${p.hash}`)}>
              <img
                src={folderAddress(`/api/pictures/${p.hash}`)}
                alt={p.caption ? `${blade.code}, ${p.caption}` : blade.code}
                className="w-full rounded-edge border border-line"
                loading="lazy"
              />
            </a>
            <Note className="flex justify-between">
              {p.caption || "no caption"}
              <TextButton
                aria-label={`Delete the picture “${p.caption}”`}
                small
                onClick={() => remove.mutate(p.hash)}
              >
                delete
              </TextButton>
            </Note>
          </li>
        ))}
      </ul>
      <div className="mt-2 flex flex-wrap items-end gap-3">
        <label className="flex flex-col gap-1">
          <span className="text-note font-medium text-ink-2">Caption</span>
          <input
            value={caption}
            onChange={(e) => setCaption(e.target.value)}
            className="min-h-11 rounded-edge border-[1.5px] border-line bg-sheet px-3"
          />
        </label>
        <label
          className={`flex min-h-11 cursor-pointer items-center rounded-edge border-[1.5px]
          border-ink px-4 font-semibold focus-within:outline-3 focus-within:outline-next`}
        >
          Add a picture
          <input
            type="file"
            accept="image/jpeg,image/png,image/webp"
            className="sr-only"
            onChange={(e) => {
              const [file] = e.target.files ?? [];
              if (file) send.mutate(file);
              e.target.value = "";
            }}
          />
        </label>
      </div>
      <Notice says={send.error ? said : undefined} className="mt-1" />
    </Section>
  );
}
