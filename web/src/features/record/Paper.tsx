import { useQuery } from "@tanstack/react-query";
import { type FormEvent, useCallback, useEffect, useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { useChange } from "../../api/changes";
import { Refused, type Schemas } from "../../api/client";
import { lineUpQuery } from "../../api/queries";
import { checkPaper, keepPaper, paperFormQuery } from "../../api/record";
import { plural, typedNumber } from "../../domain/format";
import { Button, buttonLook } from "../../ui/Button";
import { DayField } from "../../ui/DayField";
import { Field } from "../../ui/Field";
import { Kbd } from "../../ui/Kbd";
import { Failed, Waiting } from "../../ui/State";
import { Tick } from "../../ui/Tick";
import { Toggles } from "../../ui/Toggles";
import { useUndo } from "../../ui/Undo";
import { useDraft } from "../../ui/useDraft";
import { PaperGrid } from "./PaperGrid";
import { PaperTally } from "./PaperTally";
import { type Form, firstRows, linesOf, type Row, rowOf, saying, shownColumns } from "./paperRows";

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
      <h1 className="answer">Choose a blade for these results.</h1>
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
    every: "",
    gapUnknown: false,
    more: false,
    way: "totals" as "totals" | "readings",
  }));
  const [typed, setTyped, , forget] = useDraft(`paper-${trialId}`, start);
  const { rows, by, on, way, more } = typed;
  const [asksGap, setAsksGap] = useState(false);
  const every = typedNumber(typed.every);
  const setRows = (next: readonly Row[]) => setTyped({ ...typed, rows: [...next] });
  const say = useUndo();
  const gapIsRead = typeof every === "number" || !typed.every.trim();
  const check_every = typeof every === "number" ? every : null;
  const body = { lines: linesOf(rows), by, cut_on: on, check_every };
  const { looked, lookNow } = useChecked(trialId, body);
  const keep = useChange(
    () => keepPaper(trialId, body),
    () => {
      forget();
      navigate(`/trials/${trialId}/verdict`);
    },
    () => say("Undone: the runs are in the bin."),
  );
  const said = saying(rows);
  const refused = keep.error instanceof Refused ? keep.error.problem.faults : undefined;
  const faults = refused?.length ? refused : looked.slips;
  const faultAt = (row: Row, key: string) =>
    faults.find((f) => said[(f.line ?? 0) - 1]?.id === row.id && f.column === key)?.message;
  const submit = async (event?: FormEvent) => {
    event?.preventDefault();
    if (!body.lines.length || keep.isPending) return;
    // a quick hand saves before its last line was looked at
    const asks = !typed.gapUnknown && (await lookNow()).totals_without_gap > 0;
    setAsksGap(asks);
    if (gapIsRead && !asks) keep.mutate(undefined);
  };
  const View = way === "totals" ? PaperGrid : PaperTally;
  return (
    <form
      onSubmit={submit}
      onKeyDown={(e) => {
        if (e.key !== "Enter" || !(e.ctrlKey || e.metaKey)) return;
        e.preventDefault();
        void submit();
      }}
      className="mx-auto max-w-[1400px] px-4 pt-6 bench:px-7"
      noValidate
    >
      <h1 className="answer">Results on paper</h1>
      <p className="mt-1 max-w-3xl text-ink-2">
        One finished run a line. A total is shown as you wrote it; 48-60 means still there at 48 and
        gone at 60.
      </p>
      <div className="mt-4 flex flex-wrap items-start gap-4">
        <Toggles
          says="Written as"
          value={way}
          onPick={(picked) => setTyped({ ...typed, way: picked })}
          choices={[
            ["totals", "Totals"],
            ["readings", "Readings, one by one"],
          ]}
        />
        <Setting
          trialId={trialId}
          typed={typed}
          form={form}
          onType={setTyped}
          gap={{
            wrong: gapIsRead ? undefined : `“${typed.every}” is not a number`,
            isAsked: asksGap && !typed.gapUnknown && !typed.every,
            totals: looked.totals_without_gap,
          }}
        />
      </div>
      <View
        form={form}
        columns={shownColumns(form, rows, more)}
        rows={rows}
        every={typed.every}
        faultAt={faultAt}
        onRows={setRows}
        onMore={() => setRows([...rows, rowOf(nextLine(rows))])}
      />
      <div className="mt-3 flex flex-wrap items-center gap-3">
        <Button onClick={() => setRows([...rows, rowOf(nextLine(rows))])}>Add line</Button>
        <Button onClick={() => setRows([...rows, ...firstRows(form, true)])}>
          Add a verification of each
        </Button>
        <Button kind="next" type="submit" disabled={!body.lines.length || keep.isPending}>
          Save {plural(body.lines.length, "run")}
        </Button>
        <Tick
          label="Show zone, edge length and sharpening"
          checked={more}
          onTick={(on_) => setTyped({ ...typed, more: on_ })}
        />
        <span className="text-note">
          <Kbd>Enter</Kbd> next line · <Kbd>Ctrl</Kbd> <Kbd>Enter</Kbd> save all · a copied table
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

interface Gap {
  readonly wrong: string | undefined;
  readonly isAsked: boolean;
  readonly totals: number;
}

/** Who cut, when, and how often was checked, for all lines that say nothing else. */
function Setting<T extends { by: string; on: string; every: string; gapUnknown: boolean }>({
  trialId,
  typed,
  form,
  gap,
  onType,
}: {
  trialId: string;
  typed: T;
  form: Form;
  gap: Gap;
  onType: (typed: T) => void;
}) {
  const lineUp = useQuery(lineUpQuery(trialId));
  const asks = gap.isAsked
    ? "How often did you check? Give the gap, or tick “gap not known”."
    : undefined;
  const usual = form.check_every === null ? undefined : `the method says ${form.check_every}`;
  return (
    <div className="grid grow grid-cols-2 gap-3 bench:grid-cols-[10rem_10rem_12rem_1fr]">
      <div>
        <Field
          label="Checked every"
          unit={form.count_unit}
          inputMode="decimal"
          value={typed.every}
          onChange={(e) => onType({ ...typed, every: e.target.value, gapUnknown: false })}
          error={gap.wrong ?? asks}
          hint={usual}
        />
        {gap.totals > 0 || typed.gapUnknown ? (
          <Tick
            label="gap not known"
            checked={typed.gapUnknown}
            onTick={(gapUnknown) => onType({ ...typed, gapUnknown, every: "" })}
          />
        ) : null}
      </div>
      <DayField
        label="Cut on"
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

const NOT_LOOKED_AT: Schemas["PaperCheckedOut"] = { slips: [], totals_without_gap: 0 };

/** What stands there, looked at when the hand rests and before it is saved. */
function useChecked(trialId: string, paper: Schemas["PaperBody"]) {
  const [looked, setLooked] = useState(NOT_LOOKED_AT);
  const sent = JSON.stringify(paper);
  const lookNow = useCallback(async () => {
    const asked = JSON.parse(sent) as Schemas["PaperBody"];
    const found = asked.lines.length ? await checkPaper(trialId, asked).catch(() => null) : null;
    return found ?? NOT_LOOKED_AT;
  }, [trialId, sent]);
  useEffect(() => {
    let isOver = false;
    const timer = setTimeout(async () => {
      const found = await lookNow();
      if (!isOver) setLooked(found);
    }, CHECKED_AFTER_MS);
    return () => {
      isOver = true;
      clearTimeout(timer);
    };
  }, [lookNow]);
  return { looked, lookNow };
}

/** The blade of the last line with its next edge. */
function nextLine(rows: readonly Row[]): Record<string, string> {
  const last = rows.at(-1);
  const edge = Number(last?.cells.edge);
  const blade = last?.cells.blade ?? "";
  return Number.isInteger(edge) && edge > 0 ? { blade, edge: String(edge + 1) } : { blade };
}
