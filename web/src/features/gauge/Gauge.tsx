import { useMutation } from "@tanstack/react-query";
import { type KeyboardEvent, useState } from "react";
import { gaugeOrder, readGaugeFile } from "../../api/gauge";
import { LIMITS } from "../../domain/limits.gen";
import { Faults } from "../../parts/Faults";
import { Button } from "../../ui/Button";
import { Field } from "../../ui/Field";
import { FilePick } from "../../ui/FilePick";
import { Note } from "../../ui/Note";
import { Notice } from "../../ui/Notice";
import { Page } from "../../ui/Page";
import { Heading } from "../../ui/Section";
import { useDraft } from "../../ui/useDraft";
import { useForm } from "../../ui/useForm";
import { Found } from "./Found";
import { KeepStudy, KeptStudies } from "./KeptStudies";
import { EMPTY, isUnread, namesIn, type Row, type Study } from "./study";

/** How good a tester, a line, a caliper or an eye is: parts read blind by one or several hands. */
export function Gauge() {
  const [study, setStudy, drop] = useDraft<Study>("gauge-study", EMPTY);
  const put = (at: number, typed: string) =>
    setStudy({ ...study, rows: study.rows.map((row, n) => (n === at ? { ...row, typed } : row)) });
  return (
    <Page>
      <h1 className="answer max-w-4xl">How good are the tester, the line, the hand?</h1>
      <p className="mt-2 max-w-3xl text-ink-2">
        Take parts that differ: edges from sharp to dull, blocks of hardness, blades by thickness.
        Number them where the reader does not see it, and read each of them in the order below, two
        times or more.
      </p>
      <div className="mt-5 grid gap-x-12 gap-y-8 bench:grid-cols-[24rem_minmax(0,1fr)]">
        <div className="flex flex-col gap-6">
          {study.rows.length ? (
            <Readings study={study} onType={put} onDrop={drop} />
          ) : (
            <Begin onStudy={setStudy} />
          )}
        </div>
        <div>
          <Found study={study} />
          <KeepStudy study={study} />
        </div>
      </div>
      <KeptStudies />
    </Page>
  );
}

const KINDS = {
  parts: LIMITS.gauge_parts,
  repeats: LIMITS.gauge_repeats,
  operators: "text",
  unit: "text",
} as const;
const START = { parts: "5", repeats: "3", operators: "Rhea", unit: "gf" };

/** A study laid out, or read from a file. */
function Begin({ onStudy }: { onStudy: (study: Study) => void }) {
  const [seed] = useState(() => Math.floor(Math.random() * 2 ** 31));
  const order = useMutation({ mutationFn: gaugeOrder });
  const file = useMutation({ mutationFn: readGaugeFile });
  const form = useForm({ draft: "gauge-plan", kinds: KINDS, start: START, error: order.error });
  const submit = form.onSubmit(async ({ parts, repeats, operators, unit }) => {
    const turns = await order.mutateAsync({
      parts: parts ?? 0,
      repeats: repeats ?? 0,
      operator: namesIn(operators),
      seed,
    });
    onStudy({ unit, rows: turns.map(({ part, operator }) => ({ part, operator, typed: "" })) });
  });
  const take = async ([first]: File[]) => {
    if (!first) return;
    const { readings, unit } = await file.mutateAsync(first);
    const rows = readings.map(({ part, operator, value }) => ({
      part,
      operator,
      typed: String(value),
    }));
    onStudy({ unit, rows });
  };
  return (
    <>
      <form onSubmit={submit} noValidate className="grid grid-cols-2 gap-3">
        <Field label="Parts" {...form.field("parts")} />
        <Field label="Readings of each part" {...form.field("repeats")} />
        <Field
          label="Operators"
          hint="names, parted by commas"
          className="col-span-2"
          {...form.field("operators")}
        />
        <Field label="Unit" {...form.field("unit")} />
        <Notice says={form.notice} className="col-span-2" />
        <Button kind="next" type="submit" className="col-span-2" disabled={order.isPending}>
          Lay out the order of reading
        </Button>
      </form>
      <section aria-label="From a file">
        <Heading>From a file</Heading>
        <FilePick
          label="Readings (.gauge.csv: part, operator, trial, value, unit)"
          accept=".csv,text/csv"
          isWrong={Boolean(file.error)}
          onPick={(files) => void take(files)}
        />
        {file.error ? <Faults error={file.error} /> : null}
      </section>
    </>
  );
}

/** The readings in the order they are taken; Enter goes on to the next. */
function Readings({
  study,
  onType,
  onDrop,
}: {
  study: Study;
  onType: (at: number, typed: string) => void;
  onDrop: () => void;
}) {
  const left = study.rows.filter((row) => !row.typed.trim()).length;
  const goOn = (event: KeyboardEvent<HTMLInputElement>) => {
    if (event.key !== "Enter") return;
    event.preventDefault();
    const inputs = [...(event.currentTarget.closest("ol")?.querySelectorAll("input") ?? [])];
    inputs[inputs.indexOf(event.currentTarget) + 1]?.focus();
  };
  return (
    <section aria-label="Readings">
      <Heading>{left ? `${left} of ${study.rows.length} to read` : "All are read"}</Heading>
      <ol className="mt-2 max-h-[32rem] overflow-y-auto border-y border-line">
        {study.rows.map((row, at) => (
          <Reading
            // biome-ignore lint/suspicious/noArrayIndexKey: readings keep their turn
            key={at}
            row={row}
            unit={study.unit}
            onType={(typed) => onType(at, typed)}
            onKeyDown={goOn}
          />
        ))}
      </ol>
      <Note className="mt-1">What is typed stays on this device until the study is cleared.</Note>
      <Button kind="quiet" className="px-0" onClick={onDrop}>
        Clear the study
      </Button>
    </section>
  );
}

function Reading({
  row,
  unit,
  onType,
  onKeyDown,
}: {
  row: Row;
  unit: string;
  onType: (typed: string) => void;
  onKeyDown: (event: KeyboardEvent<HTMLInputElement>) => void;
}) {
  const wrong = isUnread(row);
  return (
    <li className="grid grid-cols-[1fr_8rem_3rem] items-center gap-2 border-b border-line py-1">
      <span>
        part <b>{row.part}</b> <span className="text-ink-2">{row.operator}</span>
      </span>
      <input
        inputMode="decimal"
        value={row.typed}
        onChange={(event) => onType(event.target.value)}
        onKeyDown={onKeyDown}
        aria-label={`Part ${row.part}, ${row.operator}`}
        aria-invalid={wrong}
        className={`min-h-11 rounded-edge border-[1.5px] bg-sheet px-2
          ${wrong ? "border-rust" : "border-line"}`}
      />
      <span className="text-note text-ink-2">{wrong ? "no number" : unit}</span>
    </li>
  );
}
