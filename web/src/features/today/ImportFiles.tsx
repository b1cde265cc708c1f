import { type FormEvent, useState } from "react";
import { Link, useNavigate } from "react-router";
import { formOf, sendForm, useChange } from "../../api/changes";
import { Refused, type Schemas } from "../../api/client";
import { newId } from "../../domain/ids";
import { LIMITS } from "../../domain/limits.gen";
import { Faults } from "../../parts/Faults";
import { ImportProgress } from "../../parts/ImportProgress";
import { Button, buttonLook } from "../../ui/Button";
import { FilePick } from "../../ui/FilePick";
import { useUndo } from "../../ui/Undo";

const ACCEPTED = ".csv,.tsv,.txt,.xlsx,.json,text/csv";
const SHEET_OF_RESULTS = "urn:kessik:sheet-of-results";

/**
 * Files in: all or nothing, with the first faults by line and column, and how many there are in
 * all. A sheet of results goes on to the reader of sheets.
 */
export function ImportFiles() {
  const say = useUndo();
  const navigate = useNavigate();
  const [files, setFiles] = useState<File[]>([]);
  const [id, setId] = useState(newId);
  const read = useChange(
    (importId: string) => send(files, importId).finally(() => setId(newId())),
    undefined,
    () => {
      read.reset();
      say("Undone. The imported trials are in the bin.");
    },
  );
  const tooLarge = files.find((file) => file.size > LIMITS.file_mb.most * 1e6);
  const toItsReader = (error: Error) => {
    const isSheet = error instanceof Refused && error.problem.type === SHEET_OF_RESULTS;
    const name = isSheet ? error.problem.faults?.[0]?.file : undefined;
    const file = files.find((each) => each.name === name);
    if (file) navigate("/sheets", { state: { file } });
  };
  const submit = (event: FormEvent) => {
    event.preventDefault();
    // never disabled meanwhile: that would take the focus from the hand
    if (!read.isPending) read.mutate(id, { onError: toItsReader });
  };
  return (
    <form onSubmit={submit} className="flex flex-col gap-4">
      <FilePick label="Files" accept={ACCEPTED} onPick={setFiles} isWrong={Boolean(tooLarge)} />
      {tooLarge ? (
        <span role="alert" className="font-medium text-rust">
          {tooLarge.name} has {(tooLarge.size / 1e6).toFixed(0)} MB; up to {LIMITS.file_mb.most} MB
          can be read: split it by trial
        </span>
      ) : null}
      <Button kind="next" type="submit" disabled={files.length === 0 || Boolean(tooLarge)}>
        {read.isPending ? "Reading …" : "Read and import"}
      </Button>
      {read.isPending ? <ImportProgress id={id} /> : null}
      {read.error ? <Faults error={read.error} /> : null}
      {read.data ? <Made made={read.data.made} /> : null}
    </form>
  );
}

function Made({ made }: { made: Schemas["ImportOut"] }) {
  return (
    <div role="status" className="flex flex-col gap-3">
      {made.trials.map((t) => (
        <Link key={t.id} to={`/trials/${t.id}/verdict`} className={buttonLook("plain")}>
          Read the verdict on {t.name}
        </Link>
      ))}
      {made.blades.length ? (
        <Link to="/shelf" className={buttonLook("plain")}>
          See {made.blades.join(", ")} on the shelf
        </Link>
      ) : null}
      <ul className="text-note text-ink-2">
        {made.notes.map((n) => (
          <li key={n}>{n}</li>
        ))}
      </ul>
    </div>
  );
}

async function send(files: readonly File[], id: string): Promise<Schemas["ImportOut"]> {
  const form = await formOf(files);
  form.append("import_id", id);
  return sendForm<Schemas["ImportOut"]>("/api/imports", form);
}
