import { type FormEvent, useState } from "react";
import { Link, useNavigate } from "react-router";
import { putEdge, putRun, useChange } from "../../api/changes";
import { Refused, type Schemas } from "../../api/client";
import { EdgeStrip } from "../../charts/EdgeStrip";
import { typedNumber } from "../../domain/format";
import { newId } from "../../domain/ids";
import { freshLane } from "../../domain/strips";
import { Button } from "../../ui/Button";
import { Choice, Option } from "../../ui/Choice";
import { Field } from "../../ui/Field";
import { Tick } from "../../ui/Tick";
import { Cautions } from "./Cautions";

/**
 * Choose the blade and its edge, and go to the bench. A cut edge is used up: the next run is on the
 * next sharpening.
 */
export function StartRun({ lineUp, armId }: { lineUp: Schemas["LineUpOut"]; armId: string }) {
  const navigate = useNavigate();
  const [runId] = useState(newId);
  const [freshId] = useState(newId);
  const [chosen, setChosen] = useState(armId);
  const [practice, setPractice] = useState(false);
  const [verifies, setVerifies] = useState(false);
  const [insist, setInsist] = useState(false);
  const blade = lineUp.blades.find((b) => b.arm_id === chosen) ?? lineUp.blades[0];
  const codeOf = (b: Schemas["BladeOut"]) => lineUp.codes[b.arm_id] ?? b.code;
  const edges = blade?.edges ?? [];
  const earlier = lineUp.runs.find(
    (r) => r.arm_id === blade?.arm_id && !r.practice && r.status === "stopped",
  );
  const last = edges.at(-1);
  const isCut = (edgeId: string) => lineUp.used_up.includes(edgeId);
  const there = lineUp.runs.filter((r) => r.edge_id === last?.id && !r.practice);
  const hasRoom = there.length > 0 && there.every((r) => r.zone_from_mm !== null);
  const [otherZone, setOtherZone] = useState(false);
  const sharesEdge = hasRoom && otherZone;
  const needsNew = !last || (isCut(last.id) && !practice && !sharesEdge);
  const rounds = lineUp.trial.method.ends.some((rule) => rule.kind === "cycles");
  const [angle, setAngle] = useState("");
  const [thickness, setThickness] = useState("");
  const planned = needsNew ? undefined : last?.zones.find((z) => z.use === "cut");
  const before = [...lineUp.runs]
    .reverse()
    .find((r) => r.arm_id === blade?.arm_id && !r.practice && r.zone_from_mm !== null);
  const number = needsNew ? (blade?.next_edge ?? 1) : (last?.number ?? 1);
  const [from, setFrom] = useState<string | null>(null);
  const [to, setTo] = useState<string | null>(null);
  const usual = sharesEdge ? undefined : before;
  const zone = [
    from ?? (planned?.from_mm ?? usual?.zone_from_mm)?.toString() ?? "",
    to ?? (planned?.to_mm ?? usual?.zone_to_mm)?.toString() ?? "",
  ] as const;
  const [took, setTook] = useState({ strokes: "", minutes: "", block: "" });
  const typed = [angle, thickness, ...zone, took.strokes, took.minutes, took.block].map(
    typedNumber,
  );
  const wrong = (i: number, text: string) =>
    typed[i] === undefined ? `“${text}” is not a number` : undefined;
  const start = useChange(
    async () => {
      if (!blade) return;
      let edgeId = last?.id ?? freshId;
      if (needsNew) {
        edgeId = freshId;
        await putEdge(blade.id, {
          id: freshId,
          arm: blade.arm,
          side_angle_deg: typed[0] ?? null,
          thickness_behind_edge_mm: typed[1] ?? null,
          ...sharpening(typed[4], typed[5]),
        });
      } else if (last && (took.strokes || took.minutes)) {
        await putEdge(blade.id, { id: last.id, ...sharpening(typed[4], typed[5]) });
      }
      await putRun(lineUp.trial.id, {
        id: runId,
        edge_id: edgeId,
        practice,
        zone_from_mm: typed[2] ?? null,
        zone_to_mm: typed[3] ?? null,
        block: typed[6] ?? null,
        verifies_run_id: verifies && !practice ? (earlier?.id ?? null) : null,
        insist_on_lot: insist,
      });
    },
    () => navigate(`/runs/${runId}`),
  );
  const refused = start.error instanceof Refused ? start.error : null;
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (!typed.includes(undefined)) start.mutate(undefined);
  };
  if (!blade) return <p>Add a blade first.</p>;
  return (
    <form onSubmit={submit} className="flex flex-col gap-4" noValidate>
      <Choice label="Blade" value={blade.arm_id} onPick={(picked) => setChosen(picked)}>
        {lineUp.blades.map((b) => (
          <Option key={b.arm_id} value={b.arm_id}>
            {codeOf(b)}
            {b.claimed_grade && !lineUp.trial.is_blind ? `, ${b.claimed_grade}` : ""}
          </Option>
        ))}
      </Choice>
      <EdgeStrip
        mark={lineUp.trial.is_blind ? 0 : blade.mark}
        title={codeOf(blade)}
        edgeLengthMm={blade.edge_length_mm}
        edges={[
          {
            ...(last && !needsNew ? freshLane(last) : {}),
            number,
            zoneFromMm: typed[2] ?? null,
            zoneToMm: typed[3] ?? null,
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
              : `This is the first edge of ${codeOf(blade)} here.`}
          </p>
          <div className="grid grid-cols-2 gap-3">
            <Field
              label="Angle per side"
              unit="°"
              inputMode="decimal"
              value={angle}
              onChange={(e) => setAngle(e.target.value)}
              error={wrong(0, angle) ?? refused?.at("side_angle_deg")}
              hint="Leave empty if not measured"
            />
            <Field
              label="Thickness behind the edge"
              unit="mm"
              inputMode="decimal"
              value={thickness}
              onChange={(e) => setThickness(e.target.value)}
              error={wrong(1, thickness) ?? refused?.at("thickness_behind_edge_mm")}
            />
          </div>
        </>
      ) : (
        <p className="text-ink-2">
          On edge {last?.number}, {sharesEdge ? "cut on another zone" : "not cut yet"}.
        </p>
      )}
      {hasRoom && !practice ? (
        <Tick
          label={`On another zone of edge ${last?.number}; both zones count as one edge`}
          checked={otherZone}
          onTick={setOtherZone}
        />
      ) : null}
      {rounds && !practice ? (
        <Took took={took} onTook={setTook} wrong={(at, text) => wrong(at, text)} />
      ) : null}
      <div className="grid grid-cols-3 gap-3">
        <Field
          label="Zone in use, from"
          unit="mm"
          inputMode="decimal"
          value={zone[0]}
          onChange={(e) => setFrom(e.target.value)}
          error={wrong(2, zone[0])}
          hint="From the heel; empty: the whole edge"
        />
        <Field
          label="to"
          unit="mm"
          inputMode="decimal"
          value={zone[1]}
          onChange={(e) => setTo(e.target.value)}
          error={wrong(3, zone[1]) ?? refused?.at("zone_to_mm")}
        />
        <Field
          label="Block"
          term="block"
          inputMode="numeric"
          value={took.block}
          onChange={(e) => setTook({ ...took, block: e.target.value })}
          error={wrong(6, took.block) ?? refused?.at("block")}
          hint="One number for each piece or day; empty: Kessik numbers it"
        />
      </div>
      <Tick
        label="Practice run, with readings from the virtual bench"
        checked={practice}
        onTick={(on) => setPractice(on)}
      />
      {earlier && !practice ? (
        <Tick
          label="It verifies the first result: hide that until this run stops"
          checked={verifies}
          onTick={(on) => setVerifies(on)}
        />
      ) : null}
      {refused?.problem.field?.endsWith("_lot_id") ? (
        <Tick
          label="Use the other lot; the run is marked"
          checked={insist}
          onTick={(on) => setInsist(on)}
        />
      ) : null}
      {start.error &&
      !["side_angle_deg", "thickness_behind_edge_mm", "zone_to_mm", "block"].includes(
        refused?.problem.field ?? "",
      ) ? (
        <p role="alert" className="font-medium text-rust">
          {start.error.message}
        </p>
      ) : null}
      <Cautions trial={lineUp.trial} />
      <Button kind="next" type="submit" disabled={start.isPending} autoFocus>
        {practice ? "Start practice run" : "Start run"}
      </Button>
      <AlreadyCut trialId={lineUp.trial.id} />
    </form>
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

interface Taken {
  readonly strokes: string;
  readonly minutes: string;
  readonly block: string;
}

/** What the sharpening before this round took: passes grow where hidden damage does. */
function Took({
  took,
  onTook,
  wrong,
}: {
  took: Taken;
  onTook: (took: Taken) => void;
  wrong: (at: number, text: string) => string | undefined;
}) {
  return (
    <fieldset className="grid grid-cols-2 gap-3">
      <legend className="mb-1 font-semibold">Sharpening before this round</legend>
      <Field
        label="Strokes a side"
        inputMode="numeric"
        value={took.strokes}
        onChange={(e) => onTook({ ...took, strokes: e.target.value })}
        error={wrong(4, took.strokes)}
      />
      <Field
        label="Minutes"
        inputMode="decimal"
        value={took.minutes}
        onChange={(e) => onTook({ ...took, minutes: e.target.value })}
        error={wrong(5, took.minutes)}
      />
    </fieldset>
  );
}

/** What was typed of a sharpening, as its edge keeps it. */
const sharpening = (strokes: number | null | undefined, minutes: number | null | undefined) => ({
  ...(typeof minutes === "number" ? { minutes } : {}),
  ...(typeof strokes === "number"
    ? { steps: [{ abrasive: "as recorded", strokes_per_side: Math.round(strokes) }] }
    : {}),
});
