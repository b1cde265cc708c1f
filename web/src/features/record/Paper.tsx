import { useQuery } from "@tanstack/react-query";
import { type FormEvent, useCallback, useEffect, useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { useChange } from "../../api/changes";
import { Refused, type Schemas } from "../../api/client";
import { lineUpQuery } from "../../api/queries";
import { checkPaper, keepPaper, paperFormQuery } from "../../api/record";
import { plural } from "../../domain/format";
import { yesNo } from "../../domain/typed";
import { Button, buttonLook } from "../../ui/Button";
import { DayField } from "../../ui/DayField";
import { Field } from "../../ui/Field";
import { Kbd } from "../../ui/Kbd";
import { Note } from "../../ui/Note";
import { Notice } from "../../ui/Notice";
import { Failed, Waiting } from "../../ui/State";
import { Tick } from "../../ui/Tick";
import { Toggles } from "../../ui/Toggles";
import { useUndo } from "../../ui/Undo";
import { useDraft } from "../../ui/useDraft";
import { useForm } from "../../ui/useForm";
import { PaperGrid } from "./PaperGrid";
import { PaperTally } from "./PaperTally";
import { type Form, firstRows, linesOf, type Row, rowOf, saying, shownColumns } from "./paperRows";

const CHECKED_AFTER_MS = 500;
const SETTING = { by: "text", cut_on: "day", check_every: "number", gap_unknown: "yes" } as const;
const NOTHING_SET = { by: "", cut_on: "", check_every: "", gap_unknown: "" };
const NOTHING_READ = { by: "", cut_on: "", check_every: null };
type SettingForm = ReturnType<typeof useForm<typeof SETTING>>;
type Way = "totals" | "readings";

/** Finished runs as they stand on paper, a line each: kept all together, or none. */
export function Paper() {
  const { trialId = "" } = useParams();
  const form = useQuery(paperFormQuery(trialId));
  if (form.isPending) return <Waiting what="the sheet" />;
  if (form.isError) return <Failed error={form.error} onRetry={() => void form.refetch()} />;
  if (form.data.arms.length === 0) return <NoBlades trialId={trialId} />;
  return <Sheet trialId={trialId} sheet={form.data} />;
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

function Sheet({ trialId, sheet }: { trialId: string; sheet: Form }) {
  const navigate = useNavigate();
  const [start] = useState(() => ({ rows: firstRows(sheet), more: false, way: "totals" as Way }));
  const [written, setWritten, , forget] = useDraft(`paper-${trialId}`, start);
  const { rows, way, more } = written;
  const [asksGap, setAsksGap] = useState(false);
  const setRows = (next: readonly Row[]) => setWritten({ ...written, rows: [...next] });
  const say = useUndo();
  const keep = useChange(
    (paper: Schemas["PaperBody"]) => keepPaper(trialId, paper),
    () => {
      forget();
      form.drop();
      navigate(`/trials/${trialId}/verdict`);
    },
    () => say("Undone: the runs are in the bin."),
  );
  const form = useForm({
    draft: `paper-setting-${trialId}`,
    kinds: SETTING,
    start: NOTHING_SET,
    error: keep.error,
  });
  const lines = linesOf(rows);
  const { gap_unknown, ...setting } = form.values ?? { ...NOTHING_READ, gap_unknown: false };
  const { looked, lookNow } = useChecked(trialId, { lines, ...setting });
  const said = saying(rows);
  const refused = keep.error instanceof Refused ? keep.error.problem.faults : undefined;
  const faults = refused?.length ? refused : looked.slips;
  const faultAt = (row: Row, key: string) =>
    faults.find((f) => said[(f.line ?? 0) - 1]?.id === row.id && f.column === key)?.message;
  const submit = async (event?: FormEvent) => {
    event?.preventDefault();
    if (!lines.length || keep.isPending) return;
    // a quick hand saves before its last line was looked at
    const asks = !gap_unknown && (await lookNow()).totals_without_gap > 0;
    setAsksGap(asks);
    if (form.read() && !asks) keep.mutate({ lines, ...setting });
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
          onPick={(picked) => setWritten({ ...written, way: picked })}
          choices={[
            ["totals", "Totals"],
            ["readings", "Readings, one by one"],
          ]}
        />
        <Setting
          trialId={trialId}
          sheet={sheet}
          form={form}
          asksGap={asksGap}
          totalsWithoutGap={looked.totals_without_gap}
        />
      </div>
      <View
        form={sheet}
        columns={shownColumns(sheet, rows, more)}
        rows={rows}
        every={form.typed.check_every}
        faultAt={faultAt}
        onRows={setRows}
        onMore={() => setRows([...rows, rowOf(nextLine(rows))])}
      />
      <div className="mt-3 flex flex-wrap items-center gap-3">
        <Button onClick={() => setRows([...rows, rowOf(nextLine(rows))])}>Add line</Button>
        <Button onClick={() => setRows([...rows, ...firstRows(sheet, true)])}>
          Add a verification of each
        </Button>
        <Button kind="next" type="submit" disabled={!lines.length || keep.isPending}>
          Save {plural(lines.length, "run")}
        </Button>
        <Tick
          label="Show zone, edge length and sharpening"
          checked={more}
          onTick={(isMore) => setWritten({ ...written, more: isMore })}
        />
        <span className="text-note">
          <Kbd>Enter</Kbd> next line · <Kbd>Ctrl</Kbd> <Kbd>Enter</Kbd> save all · a copied table
          can be pasted
        </span>
      </div>
      <Notice says={refused?.length ? undefined : form.notice} className="mt-3 font-medium" />
    </form>
  );
}

/** Who cut, when, and how often was checked, for all lines that say nothing else. */
function Setting({
  trialId,
  sheet,
  form,
  asksGap,
  totalsWithoutGap,
}: {
  trialId: string;
  sheet: Form;
  form: SettingForm;
  asksGap: boolean;
  totalsWithoutGap: number;
}) {
  const lineUp = useQuery(lineUpQuery(trialId));
  const { typed } = form;
  const every = form.field("check_every");
  const unknown = form.tick("gap_unknown");
  const isAsked = asksGap && !unknown.checked && !typed.check_every;
  const asks = "How often did you check? Give the gap, or tick “gap not known”.";
  const usual = sheet.check_every === null ? undefined : `the method says ${sheet.check_every}`;
  return (
    <div className="grid grow grid-cols-2 gap-3 bench:grid-cols-[10rem_10rem_12rem_1fr]">
      <div>
        <Field
          label="Checked every"
          unit={sheet.count_unit}
          {...every}
          onChange={(e) => form.set({ check_every: e.target.value, gap_unknown: "" })}
          error={every.error ?? (isAsked ? asks : undefined)}
          hint={usual}
        />
        {totalsWithoutGap > 0 || unknown.checked ? (
          <Tick
            label="gap not known"
            checked={unknown.checked}
            onTick={(is) => form.set({ gap_unknown: yesNo(is), check_every: "" })}
          />
        ) : null}
      </div>
      <DayField label="Cut on" {...form.field("cut_on")} />
      <Field label="Cut by" {...form.field("by")} />
      <Note className="self-end pb-2 max-bench:col-span-2">{lineUp.data?.trial.method.name}</Note>
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
