import { useMutation, useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { Link } from "react-router";
import { sendForm } from "../../api/changes";
import { Refused, type Schemas } from "../../api/client";
import { Button, buttonLook } from "../../ui/Button";

/** Files in: all or nothing, with every fault by line and column. */
export function ImportFiles() {
  const queries = useQueryClient();
  const [files, setFiles] = useState<File[]>([]);
  const read = useMutation({ mutationFn: () => send(files), onSuccess: () => queries.invalidateQueries() });
  const refused = read.error instanceof Refused ? read.error.problem : null;
  const submit = (event: FormEvent) => {
    event.preventDefault();
    read.mutate();
  };
  return (
    <form onSubmit={submit} className="flex flex-col gap-4">
      <label className="flex flex-col gap-1">
        <span className="text-note font-medium text-ink-2">Files (CSV)</span>
        <input
          type="file"
          multiple
          accept=".csv,text/csv"
          onChange={(e) => setFiles([...(e.target.files ?? [])])}
          className="min-h-11 rounded-edge border-[1.5px] border-line bg-sheet p-2 file:mr-3 file:min-h-8 file:cursor-pointer file:rounded-edge file:border file:border-ink file:px-3 file:font-semibold"
        />
      </label>
      <Button kind="next" type="submit" disabled={files.length === 0 || read.isPending}>
        {read.isPending ? "Reading …" : "Read and import"}
      </Button>
      {read.error ? (
        <div role="alert" className="border-l-4 border-rust bg-rust-soft px-4 py-3">
          <p className="font-semibold">
            {refused?.faults?.length
              ? `Nothing was imported: ${refused.faults.length} to put right.`
              : read.error.message}
          </p>
          <ul className="mt-2 flex flex-col gap-2">
            {(refused?.faults ?? []).map((f) => (
              <li key={`${f.file}:${f.line}:${f.column}:${f.message}`} className="text-note">
                <b>
                  {f.file}, line {f.line}
                  {f.column ? `, ${f.column}` : ""}
                </b>
                <br />
                {f.message}
              </li>
            ))}
          </ul>
        </div>
      ) : null}
      {read.data ? (
        <div role="status" className="flex flex-col gap-3">
          {read.data.trials.map((t) => (
            <Link key={t.id} to={`/trials/${t.id}/verdict`} className={buttonLook("plain")}>
              Read the verdict on {t.name}
            </Link>
          ))}
          {read.data.blades.length ? (
            <Link to="/shelf" className={buttonLook("plain")}>
              See {read.data.blades.join(", ")} on the shelf
            </Link>
          ) : null}
          <ul className="text-note text-ink-2">
            {read.data.notes.map((n) => (
              <li key={n}>{n}</li>
            ))}
          </ul>
        </div>
      ) : null}
    </form>
  );
}

function send(files: readonly File[]): Promise<Schemas["ImportOut"]> {
  const form = new FormData();
  for (const file of files) form.append("files", file, file.name);
  return sendForm<Schemas["ImportOut"]>("/api/imports", form);
}
