import { useQuery } from "@tanstack/react-query";
import { type FormEvent, useEffect, useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { useChange } from "../../api/changes";
import { Refused, type Schemas } from "../../api/client";
import { lineUpQuery } from "../../api/queries";
import { checkPaper, keepPaper, paperFormQuery } from "../../api/record";
import { plural } from "../../domain/format";
import { Button, buttonLook } from "../../ui/Button";
import { Field } from "../../ui/Field";
import { Kbd } from "../../ui/Kbd";
import { Failed, Waiting } from "../../ui/State";
import { Toggles } from "../../ui/Toggles";
import { useUndo } from "../../ui/Undo";
import { useDraft } from "../../ui/useDraft";
import { PaperGrid } from "./PaperGrid";
import { PaperTally } from "./PaperTally";
import { type Form, firstRows, linesOf, type Row, rowOf, saying } from "./paperRows";

type Fault = Schemas["FaultOut"];
const CHECKED_AFTER_MS = 500;

/** Finished runs as they stand on paper, a line each: kept all together, or none. */
export function Paper() {
  const { trialId = "" } = useParams();
  const form = useQuery(paperFormQuery(trialId));
  if (form.isPending) return <Waiting what="the sheet" />;
  if (form.isError) return <Failed error={form.error} onRetry={() => void form.refetch()} />;
  if (form.data.arms.length === 0) return <NoBlades trialId={trialId} />;
  return <Sheet trialId={trialId} form={form.data} />;
}

function NoBlades({ trialId }: { trialId: string }) {
  return (
    <div className="px-4 pt-6 bench:px-7">
      <h1 className="answer">Results need a blade to stand with.</h1>
      <p className="mt-4">
        <Link className={buttonLook("next")} to={`/trials/${trialId}/line-up?add=blade`}>
          Add a blade
        </Link>
      </p>
    </div>
  );
}

function Sheet({ trialId, form }: { trialId: string; form: Form }) {
  const navigate = useNavigate();
  const [start] = useState(() => ({
    rows: firstRows(form),
    by: "",
    on: "",
    every: form.check_every === null ? "" : String(form.check_every),
    way: "totals" as "totals" | "readings",
  }));
  const [typed, setTyped, , forget] = useDraft(`paper-${trialId}`, start);
  const { rows, by, on, every, way } = typed;
  const setRows = (next: readonly Row[]) => setTyped({ ...typed, rows: [...next] });
  const say = useUndo();
  const body = { lines: linesOf(rows, every), by, cut_on: on };
  const slips = useSlips(trialId, body);
  const keep = useChange(
    () => keepPaper(trialId, body),
    () => {
      forget();
      navigate(`/trials/${trialId}/verdict`);
    },
    () => say("Undone: the runs lie in the bin."),
  );
  const said = saying(rows);
  const refused = keep.error instanceof Refused ? keep.error.problem.faults : undefined;
  const faults = refused?.length ? refused : slips;
  const faultAt = (row: Row, key: string) =>
    faults.find((f) => said[(f.line ?? 0) - 1]?.id === row.id && f.column === key)?.message;
  const submit = (event?: FormEvent) => {
    event?.preventDefault();
    if (body.lines.length && !keep.isPending) keep.mutate(undefined);
  };
  const View = way === "totals" ? PaperGrid : PaperTally;
  return (
    <form
      onSubmit={submit}
      onKeyDown={(e) => {
        if (e.key !== "Enter" || !(e.ctrlKey || e.metaKey)) return;
        e.preventDefault();
        submit();
      }}
      className="mx-auto max-w-[1400px] px-4 pt-6 bench:px-7"
      noValidate
    >
      <h1 className="answer">Results on paper</h1>
      <p className="mt-1 max-w-3xl text-ink-2">
        A finished run a line. A total alone counts as wide as the gap of its checks; a bracket like
        48-60 as it stands.
      </p>
      <div className="mt-4 flex flex-wrap items-start gap-4">
        <Toggles
          says="How it was written down"
          value={way}
          onPick={(picked) => setTyped({ ...typed, way: picked })}
          choices={[
            ["totals", "Totals"],
            ["readings", "Readings, one by one"],
          ]}
        />
        <Setting trialId={trialId} typed={typed} form={form} onType={setTyped} />
      </div>
      <View
        form={form}
        rows={rows}
        every={every}
        faultAt={faultAt}
        onRows={setRows}
        onMore={() => setRows([...rows, rowOf(nextLine(rows))])}
      />
      <div className="mt-3 flex flex-wrap items-center gap-3">
        <Button onClick={() => setRows([...rows, rowOf(nextLine(rows))])}>One more line</Button>
        <Button onClick={() => setRows([...rows, ...firstRows(form, true)])}>
          A verification of each
        </Button>
        <Button kind="next" type="submit" disabled={!body.lines.length || keep.isPending}>
          Keep {plural(body.lines.length, "run")}
        </Button>
        <span className="text-note">
          <Kbd>Enter</Kbd> next line · <Kbd>Ctrl</Kbd> <Kbd>Enter</Kbd> keep all · a copied table
          can be pasted
        </span>
      </div>
      {keep.error && !refused?.length ? (
        <p role="alert" className="mt-3 font-medium text-rust">
          {keep.error.message}
        </p>
      ) : null}
    </form>
  );
}

/** Who cut, when, and how often was looked, for all lines that say nothing else. */
function Setting<T extends { by: string; on: string; every: string }>({
  trialId,
  typed,
  form,
  onType,
}: {
  trialId: string;
  typed: T;
  form: Form;
  onType: (typed: T) => void;
}) {
  const lineUp = useQuery(lineUpQuery(trialId));
  return (
    <div className="grid grow grid-cols-2 gap-3 bench:grid-cols-[8rem_10rem_12rem_1fr]">
      <Field
        label="Checked every"
        unit={form.count_unit}
        inputMode="decimal"
        value={typed.every}
        onChange={(e) => onType({ ...typed, every: e.target.value })}
      />
      <Field
        label="Cut on"
        type="date"
        value={typed.on}
        onChange={(e) => onType({ ...typed, on: e.target.value })}
      />
      <Field
        label="Cut by"
        value={typed.by}
        onChange={(e) => onType({ ...typed, by: e.target.value })}
      />
      <p className="self-end pb-2 text-note text-ink-2 max-bench:col-span-2">
        {lineUp.data?.trial.method.name}
      </p>
    </div>
  );
}

/** The slips in what stands there now, asked for when the hand rests. */
function useSlips(trialId: string, paper: Schemas["PaperBody"]): readonly Fault[] {
  const [found, setFound] = useState<readonly Fault[]>([]);
  const sent = JSON.stringify(paper);
  useEffect(() => {
    const asked = JSON.parse(sent) as Schemas["PaperBody"];
    let isOver = false;
    const timer = setTimeout(async () => {
      if (!asked.lines.length) return setFound([]);
      try {
        const slips = await checkPaper(trialId, asked);
        if (!isOver) setFound(slips);
      } catch {
        // what cannot be checked now is checked when it is kept
      }
    }, CHECKED_AFTER_MS);
    return () => {
      isOver = true;
      clearTimeout(timer);
    };
  }, [trialId, sent]);
  return found;
}

/** The blade of the last line with its next edge. */
function nextLine(rows: readonly Row[]): Record<string, string> {
  const last = rows.at(-1);
  const edge = Number(last?.cells.edge);
  const blade = last?.cells.blade ?? "";
  return Number.isInteger(edge) && edge > 0 ? { blade, edge: String(edge + 1) } : { blade };
}
