import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useParams } from "react-router";
import type { Schemas } from "../../api/client";
import { referencesQuery, verdictQuery } from "../../api/queries";
import { limitsOf } from "../../charts/decay";
import { day, unbroken } from "../../domain/format";
import { RustOfTrial } from "../../parts/RustWord";
import { Button, buttonLook } from "../../ui/Button";
import { Note } from "../../ui/Note";
import { Page } from "../../ui/Page";
import { Sheet } from "../../ui/Sheet";
import { Failed, Waiting, WorkingOut } from "../../ui/State";
import { Tick } from "../../ui/Tick";
import { Toggles } from "../../ui/Toggles";
import { useWidth } from "../../ui/useWidth";
import { AssayOffers } from "./AssayOffers";
import { Course } from "./Course";
import { Figures } from "./Figures";
import { Legend } from "./Legend";
import { LookWithout } from "./LookWithout";
import { OtherStages } from "./OtherStages";
import { Pairs } from "./Pairs";
import { RunTable } from "./RunTable";
import { referenceRungs } from "./references";
import { Save } from "./Save";
import { StageLadder } from "./StageLadder";
import { UnderForce } from "./UnderForce";
import { Upkeep } from "./Upkeep";

type VerdictData = Schemas["AnswerOut"];

/** The answer first, as a sentence; then what it rests on. */
export function Verdict() {
  const { trialId = "" } = useParams();
  const verdict = useQuery(verdictQuery(trialId));
  if (verdict.isPending) return <Waiting what="the verdict" />;
  if (verdict.isError)
    return <Failed error={verdict.error} onRetry={() => void verdict.refetch()} />;
  const { answer, working_out: left } = verdict.data;
  return (
    <Page width="wide">
      <h1 className="answer max-w-5xl" data-testid="headline">
        {unbroken(answer.headline)}
      </h1>
      <WorkingOut left={left} />
      {"sealed" in answer ? (
        <>
          <Prediction words={answer.prediction} />
          <NothingShown trial={answer.trial} />
        </>
      ) : (
        <OpenVerdict data={answer} />
      )}
    </Page>
  );
}

/** What the answer rests on, and all that can be asked of it. */
function OpenVerdict({ data }: { data: VerdictData }) {
  const trialId = data.trial.id;
  const [highlighted, setHighlighted] = useState<string | null>(null);
  const [table, setTable] = useState(false);
  const [looking, setLooking] = useState(false);
  const [saving, setSaving] = useState(false);
  const [beside, setBeside] = useState(false);
  const found = useQuery({ ...referencesQuery(trialId), enabled: beside });
  const references = beside ? (found.data ?? []) : [];
  const chart = useWidth<HTMLDivElement>(800);
  const ladder = useWidth<HTMLDivElement>(400);
  const onHighlight = setHighlighted;
  const unit = data.ladder[0]?.count_unit ?? "cuts";
  const limits = limitsOf(data.trial.method);
  const stageLimit = limits.some((l) => l.stage === data.stage);
  const hasReadings = data.runs.some((r) => r.readings.length > 0);
  return (
    <>
      <div className="mt-2 flex flex-wrap items-start justify-between gap-x-8 gap-y-3">
        <p className="max-w-3xl basis-[30rem] grow text-ink-2">{unbroken(data.standing)}</p>
        {data.runs.length > 0 ? (
          <View
            trialId={trialId}
            table={table}
            onTable={setTable}
            onLook={() => setLooking(true)}
            onSave={() => setSaving(true)}
          />
        ) : null}
      </div>
      {data.notes.map((note) => (
        <Note key={note} className="mt-1">
          {note}
        </Note>
      ))}
      <AssayOffers trialId={trialId} />
      {data.lot_factors.map((words) => (
        <p key={words} className="mt-1 text-note">
          {unbroken(words)}
        </p>
      ))}
      {data.trial.unblinded_utc ? (
        <Note className="mt-1">Cut blind; codes revealed on {day(data.trial.unblinded_utc)}.</Note>
      ) : null}
      <Prediction words={data.prediction} />
      {data.with_all ? <p className="mt-1">{unbroken(data.with_all)}</p> : null}
      {data.runs.length && data.taken_as_equal.length ? (
        <Note className="mt-1">
          Not recorded, so taken as equal: {data.taken_as_equal.join(", ")}.
          {data.let_go.length ? ` Accepted as different: ${data.let_go.join(", ")}.` : ""}
        </Note>
      ) : null}
      {data.runs.length === 0 ? (
        <NothingShown trial={data.trial} />
      ) : (
        <>
          {table ? (
            <RunTable data={data} highlighted={highlighted} onHighlight={setHighlighted} />
          ) : (
            <div
              className={`mt-3 grid grid-cols-[minmax(0,1fr)] gap-x-10 gap-y-8
              bench:grid-cols-[minmax(0,1fr)_minmax(0,400px)]`}
            >
              <div ref={chart.ref} className={`min-w-0 ${hasReadings ? "" : "hidden"}`}>
                <Course
                  data={data}
                  references={references}
                  width={chart.width}
                  {...{ highlighted, onHighlight }}
                />
              </div>
              <div ref={ladder.ref} className="min-w-0">
                {data.ladder.length ? (
                  <StageLadder
                    stage={data.stage}
                    ladder={data.ladder}
                    tieGroups={data.tie_groups}
                    byForce={stageLimit}
                    stageWords={data.trial.method.stage_words}
                    references={referenceRungs(references)}
                    width={ladder.width}
                    highlighted={highlighted}
                    onHighlight={setHighlighted}
                  />
                ) : null}
                {data.ladder.length ? (
                  <Tick
                    label="Show references of earlier trials"
                    checked={beside}
                    onTick={setBeside}
                  />
                ) : null}
                {found.data?.length === 0 ? (
                  <Note>No earlier trial connects a reference with these blades.</Note>
                ) : null}
                <Figures data={data} />
                {hasReadings ? <Strips data={data} {...{ highlighted, onHighlight }} /> : null}
              </div>
              {hasReadings ? null : <Strips data={data} {...{ highlighted, onHighlight }} />}
            </div>
          )}
          <Upkeep upkeep={data.upkeep} unit={unit} />
          <Pairs
            found={data}
            blades={data.blades}
            highlighted={highlighted}
            onHighlight={setHighlighted}
          />
          <OtherStages
            data={data}
            byForce={(stage) => limits.some((l) => l.stage === stage)}
            highlighted={highlighted}
            onHighlight={setHighlighted}
          />
        </>
      )}
      {hasReadings ? <UnderForce trialId={trialId} /> : null}
      <RustOfTrial trialId={trialId} />
      <Sheet open={saving} onOpenChange={setSaving} title="Report and files">
        {saving ? <Save trialId={trialId} charts={chartsOf(data)} /> : null}
      </Sheet>
      <Sheet
        open={looking}
        onOpenChange={setLooking}
        title="Exclude data"
        note="Exclude a reading or an edge, and see what the answer would be."
        wide
      >
        {looking ? (
          <LookWithout trialId={trialId} runs={data.runs} onDone={() => setLooking(false)} />
        ) : null}
      </Sheet>
    </>
  );
}

function Prediction({ words }: { words: string }) {
  return words ? (
    <Note className="mt-1">Prediction, recorded before the first cut: {words}</Note>
  ) : null;
}

/** Where to go on while there is nothing to show. */
function NothingShown({ trial }: { trial: VerdictData["trial"] }) {
  return (
    <p className="mt-6">
      <Link
        className={buttonLook("next")}
        to={`/trials/${trial.id}/${trial.is_blind ? "plan" : "line-up"}`}
      >
        {trial.is_blind ? "Go to the plan" : "Go to the line-up"}
      </Link>
    </p>
  );
}

/** The edge strips of the blades, as wide as there is room. */
function Strips({
  data,
  highlighted,
  onHighlight,
}: {
  data: VerdictData;
  highlighted: string | null;
  onHighlight: (blade: string | null) => void;
}) {
  const room = useWidth<HTMLDivElement>(400);
  return (
    <div ref={room.ref} className="min-w-0">
      <Legend data={data} width={room.width} {...{ highlighted, onHighlight }} />
    </div>
  );
}

function View({
  trialId,
  table,
  onTable,
  onLook,
  onSave,
}: {
  trialId: string;
  table: boolean;
  onTable: (table: boolean) => void;
  onLook: () => void;
  onSave: () => void;
}) {
  return (
    <div className="flex flex-wrap items-center gap-2">
      <Toggles
        says="Shown as"
        value={table ? "table" : "picture"}
        onPick={(shown) => onTable(shown === "table")}
        choices={[
          ["picture", "Picture"],
          ["table", "Table"],
        ]}
      />
      <Button kind="quiet" onClick={onLook}>
        Exclude data …
      </Button>
      <Link className={buttonLook("quiet")} to={`/trials/${trialId}/record`}>
        Record
      </Link>
      <Button kind="quiet" onClick={onSave}>
        Report and files …
      </Button>
    </div>
  );
}

/** The charts that a picture can be made of. */
const chartsOf = (data: VerdictData) => [
  ...(data.runs.some((run) => run.readings.length) ? ["curves"] : []),
  ...(data.ladder.length ? ["lives"] : []),
];
