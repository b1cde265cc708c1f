import { type FormEvent, useState } from "react";
import { Link } from "react-router";
import { formOf, sendForm, useChange } from "../../api/changes";
import type { Schemas } from "../../api/client";
import { plural } from "../../domain/format";
import { WORDS } from "../../domain/words";
import { Faults } from "../../parts/Faults";
import { Button, buttonLook } from "../../ui/Button";
import { Choice, Option, Options } from "../../ui/Choice";
import { FilePick } from "../../ui/FilePick";
import { Note } from "../../ui/Note";

/** A file of shots: all of it or nothing, and every fault by its line. */
export function BringShots({ batches }: { batches: readonly Schemas["BatchOut"][] }) {
  const [files, setFiles] = useState<File[]>([]);
  const [plusMinusIs, setPlusMinusIs] = useState("one_sigma");
  const [batch, setBatch] = useState(batches[0]?.id ?? "");
  const read = useChange(
    () => send(files, batch, plusMinusIs),
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
      <FilePick label="Files of shots (CSV)" onPick={setFiles} />
      <Choice label="Batch" value={batch} onPick={setBatch}>
        <Option value="">no batch</Option>
        {batches.map((b) => (
          <Option key={b.id} value={b.id}>
            {b.name}
          </Option>
        ))}
      </Choice>
      <Choice label="In these files, ± is" value={plusMinusIs} onPick={setPlusMinusIs}>
        <Options of={WORDS.plusMinusIs} />
      </Choice>
      <Button kind="next" type="submit" disabled={files.length === 0}>
        {read.isPending ? "Reading …" : "Read the shots"}
      </Button>
      {read.error ? <Faults error={read.error} /> : null}
      {read.data ? <Taken taken={read.data.made} /> : null}
      <Note>
        A row a shot, as analysers export them: blade, shot, then a column an element and its ± (Cr,
        Cr ±; &lt;0.02 is below detection). Or a row an element: blade, shot, element, percent,
        plus_minus, detected. Both may have surface (bare, coated) and normalised (yes, no,
        unknown).
      </Note>
    </form>
  );
}

function Taken({ taken }: { taken: Schemas["TakenOut"] }) {
  return (
    <div role="status" className="flex flex-col gap-2">
      <p className="font-semibold">
        {plural(taken.shots, "shot")} of {plural(taken.blade_ids.length, "blade")} saved.
        {taken.new_codes.length ? ` New on the shelf: ${taken.new_codes.join(", ")}.` : ""}
      </p>
      {taken.blade_ids.length === 1 ? (
        <Link className={buttonLook()} to={`/assay/blades/${taken.blade_ids[0]}`}>
          Open their assays
        </Link>
      ) : null}
      <ul className="text-note text-ink-2">
        {taken.notes.map((note) => (
          <li key={note}>{note}</li>
        ))}
      </ul>
    </div>
  );
}

async function send(
  files: readonly File[],
  batchId: string,
  plusMinusIs: string,
): Promise<Schemas["TakenOut"]> {
  const form = await formOf(files);
  form.append("batch_id", batchId);
  form.append("plus_minus_is", plusMinusIs);
  return sendForm<Schemas["TakenOut"]>("/api/shot-imports", form);
}
