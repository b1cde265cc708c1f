import { type FormEvent, useState } from "react";
import { formOf, sendForm, useChange } from "../../api/changes";
import type { Schemas } from "../../api/client";
import { plural } from "../../domain/format";
import { Faults } from "../../parts/Faults";
import { Button } from "../../ui/Button";
import { FilePick } from "../../ui/FilePick";
import { Note } from "../../ui/Note";

/** Files of grades onto the shelf, as the tester's own. */
export function BringGrades() {
  const [files, setFiles] = useState<File[]>([]);
  const read = useChange(
    () => send(files),
    undefined,
    () => {
      read.reset();
    },
  );
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (!read.isPending) read.mutate(undefined);
  };
  return (
    <form onSubmit={submit} className="flex flex-col gap-4">
      <FilePick label="Files (*.grades.csv)" onPick={setFiles} />
      <Button kind="next" type="submit" disabled={files.length === 0}>
        {read.isPending ? "Reading …" : "Read the grades"}
      </Button>
      {read.error ? <Faults error={read.error} /> : null}
      {read.data ? (
        <p role="status" className="font-semibold">
          {plural(read.data.made.grades.length, "grade")} kept: {read.data.made.grades.join(", ")}
        </p>
      ) : null}
      <Note>
        Columns: grade, element; and if known standard, min_percent, max_percent (empty is open),
        standing, source, route.
      </Note>
    </form>
  );
}

async function send(files: readonly File[]): Promise<Schemas["KeptGradesOut"]> {
  const form = await formOf(files);
  return sendForm<Schemas["KeptGradesOut"]>("/api/grade-imports", form);
}
