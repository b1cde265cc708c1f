import { useState } from "react";
import { Link, useNavigate } from "react-router";
import { putEdge, putRun, useChange } from "../../api/changes";
import { Refused, type Schemas } from "../../api/client";
import { EdgeStrip } from "../../charts/EdgeStrip";
import { newId } from "../../domain/ids";
import { freshLane } from "../../domain/strips";
import { shownNumber } from "../../domain/typed";
import { Choice, Option } from "../../ui/Choice";
import { Field } from "../../ui/Field";
import { FormFoot } from "../../ui/FormFoot";
import { Tick } from "../../ui/Tick";
import { useForm, type Values } from "../../ui/useForm";
import { Cautions } from "./Cautions";
import { type EdgeAhead, edgeAhead, sharpening } from "./startRun";

type LineUp = Schemas["LineUpOut"];

const KINDS = {
  side_angle_deg: "number",
  thickness_behind_edge_mm: "number",
  strokes: "number",
  minutes: "number",
  zone_from_mm: "number",
  zone_to_mm: "number",
  block: "number",
} as const;
type Form = ReturnType<typeof useForm<typeof KINDS>>;

/**
 * Choose the blade and its edge, and go to the bench. A cut edge is used up: the next run is on the
 * next sharpening.
 */
export function StartRun({ lineUp, armId }: { lineUp: LineUp; armId: string }) {
  const navigate = useNavigate();
  const [runId] = useState(newId);
  const [freshId] = useState(newId);
  const [chosen, setChosen] = useState(armId);
  const [practice, setPractice] = useState(false);
  const [verifies, setVerifies] = useState(false);
  const [insist, setInsist] = useState(false);
  const [otherZone, setOtherZone] = useState(false);
  const blade = lineUp.blades.find((b) => b.arm_id === chosen) ?? lineUp.blades[0];
  const ahead = edgeAhead(lineUp, blade, { practice, otherZone });
  const { last, earlier } = ahead;
  const start = useChange(
    async (read: Values<typeof KINDS>) => {
      if (!blade) return;
      const made = sharpening(read.strokes, read.minutes);
      const edgeId = ahead.needsNew || !last ? freshId : last.id;
      if (edgeId === freshId)
        await putEdge(blade.id, {
          id: freshId,
          arm: blade.arm,
          side_angle_deg: read.side_angle_deg,
          thickness_behind_edge_mm: read.thickness_behind_edge_mm,
          ...made,
        });
      else if (Object.keys(made).length) await putEdge(blade.id, { id: edgeId, ...made });
      await putRun(lineUp.trial.id, {
        id: runId,
        edge_id: edgeId,
        practice,
        zone_from_mm: read.zone_from_mm,
        zone_to_mm: read.zone_to_mm,
        block: read.block,
        verifies_run_id: verifies && !practice ? (earlier?.id ?? null) : null,
        insist_on_lot: insist,
      });
    },
    () => {
      form.drop();
      navigate(`/runs/${runId}`);
    },
  );
  const form: Form = useForm({
    draft: `start-run:${lineUp.trial.id}:${blade?.arm_id ?? ""}`,
    kinds: KINDS,
    start: {
      side_angle_deg: "",
      thickness_behind_edge_mm: "",
      strokes: "",
      minutes: "",
      zone_from_mm: shownNumber(ahead.fromMm),
      zone_to_mm: shownNumber(ahead.toMm),
      block: "",
    },
    error: start.error,
  });
  if (!blade) return <p>Add a blade first.</p>;
  const refused = start.error instanceof Refused ? start.error : null;
  const byRounds = lineUp.trial.method.ends.some((rule) => rule.kind === "cycles");
  return (
    <form
      onSubmit={form.onSubmit((read) => start.mutate(read))}
      className="flex flex-col gap-4"
      noValidate
    >
      <Choice label="Blade" value={blade.arm_id} onPick={setChosen}>
        {lineUp.blades.map((b) => (
          <Option key={b.arm_id} value={b.arm_id}>
            {codeOf(lineUp, b)}
            {b.claimed_grade && !lineUp.trial.is_blind ? `, ${b.claimed_grade}` : ""}
          </Option>
        ))}
      </Choice>
      <OnWhichEdge lineUp={lineUp} blade={blade} ahead={ahead} form={form} otherZone={otherZone} />
      {ahead.hasRoom && !practice ? (
        <Tick
          label={`On another zone of edge ${last?.number}; both zones count as one edge`}
          checked={otherZone}
          onTick={setOtherZone}
        />
      ) : null}
      {byRounds && !practice ? <Took form={form} /> : null}
      <div className="grid grid-cols-3 gap-3">
        <Field
          label="Zone in use, from"
          unit="mm"
          {...form.field("zone_from_mm")}
          hint="From the heel; empty: the whole edge"
        />
        <Field label="to" unit="mm" {...form.field("zone_to_mm")} />
        <Field
          label="Block"
          term="block"
          {...form.field("block")}
          hint="One number for each piece or day; empty: Kessik numbers it"
        />
      </div>
      <Tick
        label="Practice run, with readings from the virtual bench"
        checked={practice}
        onTick={setPractice}
      />
      {earlier && !practice ? (
        <Tick
          label="It verifies the first result: hide that until this run stops"
          checked={verifies}
          onTick={setVerifies}
        />
      ) : null}
      {refused?.problem.field?.endsWith("_lot_id") ? (
        <Tick label="Use the other lot; the run is marked" checked={insist} onTick={setInsist} />
      ) : null}
      <Cautions trial={lineUp.trial} />
      <FormFoot form={form} isSaving={start.isPending} autoFocus>
        {practice ? "Start practice run" : "Start run"}
      </FormFoot>
      <AlreadyCut trialId={lineUp.trial.id} />
    </form>
  );
}

const codeOf = (lineUp: LineUp, blade: Schemas["BladeOut"]) =>
  lineUp.codes[blade.arm_id] ?? blade.code;

/** The edge that the run is on, drawn, and what was measured of it where it is a new one. */
function OnWhichEdge({
  lineUp,
  blade,
  ahead,
  form,
  otherZone,
}: {
  lineUp: LineUp;
  blade: Schemas["BladeOut"];
  ahead: EdgeAhead;
  form: Form;
  otherZone: boolean;
}) {
  const { last, needsNew, number } = ahead;
  const code = codeOf(lineUp, blade);
  return (
    <>
      <EdgeStrip
        mark={lineUp.trial.is_blind ? 0 : blade.mark}
        title={code}
        edgeLengthMm={blade.edge_length_mm}
        edges={[
          {
            ...(last && !needsNew ? freshLane(last) : {}),
            number,
            zoneFromMm: form.values?.zone_from_mm ?? null,
            zoneToMm: form.values?.zone_to_mm ?? null,
            cuts: 0,
            worn: 0,
            label: "fresh",
          },
        ]}
        width={480}
        detail
      />
      {needsNew ? (
        <>
          <p className="text-ink-2">
            {last
              ? `Edge ${last.number} has been cut. This run is on edge ${number}; ` +
                "measurements of the old edge do not apply to it."
              : `This is the first edge of ${code} here.`}
          </p>
          <div className="grid grid-cols-2 gap-3">
            <Field
              label="Angle per side"
              unit="°"
              {...form.field("side_angle_deg")}
              hint="Leave empty if not measured"
            />
            <Field
              label="Thickness behind the edge"
              unit="mm"
              {...form.field("thickness_behind_edge_mm")}
            />
          </div>
        </>
      ) : (
        <p className="text-ink-2">
          On edge {last?.number},{" "}
          {ahead.hasRoom && otherZone ? "cut on another zone" : "not cut yet"}.
        </p>
      )}
    </>
  );
}

/** The way in for runs that were cut elsewhere. */
function AlreadyCut({ trialId }: { trialId: string }) {
  const look = "inline-flex min-h-6 items-center font-semibold underline underline-offset-4";
  return (
    <p className="flex flex-wrap gap-x-4">
      Cut already?
      <Link className={look} to={`/trials/${trialId}/paper`}>
        Enter paper results
      </Link>
      <Link className={look} to={`/sheets?trial=${trialId}`}>
        Open a spreadsheet
      </Link>
    </p>
  );
}

/** What the sharpening before this round took: passes grow where hidden damage does. */
function Took({ form }: { form: Form }) {
  return (
    <fieldset className="grid grid-cols-2 gap-3">
      <legend className="mb-1 font-semibold">Sharpening before this round</legend>
      <Field label="Strokes a side" {...form.field("strokes")} />
      <Field label="Minutes" {...form.field("minutes")} />
    </fieldset>
  );
}
