import { useState } from "react";
import { deleteEdge, putEdge, useChange } from "../api/changes";
import { Refused, type Schemas } from "../api/client";
import { typedNumber } from "../domain/format";
import { labelOf, WORDS } from "../domain/words";
import { Button } from "../ui/Button";
import { Choice, Options } from "../ui/Choice";
import { DayField } from "../ui/DayField";
import { Field, LongField } from "../ui/Field";
import { Pop } from "../ui/Pop";
import { Tick } from "../ui/Tick";
import { useDraft } from "../ui/useDraft";
import { FactHistory, factWords } from "./FactHistory";
import { MeasureForm } from "./MeasureForm";
import { StepList } from "./StepList";
import { readSteps, StepsEditor, typedStep } from "./StepsEditor";
import { ZoneEditor } from "./ZoneEditor";

type Edge = Schemas["EdgeOut"];
type Quantity = Schemas["QuantityOut"];
type Body = Schemas["EdgeBody"];

/** One sharpening: its steps, checks, measures, zones and marks, and whether it counts. */
export function EdgeCard({
  bladeId,
  lengthMm,
  edge,
  standing,
  quantities,
  recipeName,
}: {
  bladeId: string;
  lengthMm: number | null;
  edge: Edge;
  standing: Schemas["EdgeStandingOut"] | undefined;
  quantities: readonly Quantity[];
  recipeName: string | undefined;
}) {
  const measured = quantities.filter((q) => q.of === "edge");
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] gap-x-10 gap-y-6 bench:grid-cols-2">
      <div className="flex flex-col gap-5">
        <dl className="grid grid-cols-2 gap-x-4 gap-y-1">
          {measured.map((q) => (
            <EdgeFact key={q.name} bladeId={bladeId} edge={edge} quantity={q} />
          ))}
        </dl>
        {edge.expected_thickness ? (
          <p className="ruled border-l-4 border-line pl-3">
            <span className="bg-paper pr-2">{edge.expected_thickness}.</span>
          </p>
        ) : null}
        {edge.stations ? (
          <p className="text-note">
            Stations: {edge.stations.mean_mm.toFixed(3)} mm mean, {edge.stations.low_mm.toFixed(2)}{" "}
            to {edge.stations.high_mm.toFixed(2)} mm
            {edge.stations.uneven
              ? ". They differ by more than 0.05 mm: where the cut is made decides."
              : "."}
          </p>
        ) : null}
        <ZoneEditor key={edge.id} bladeId={bladeId} edge={edge} lengthMm={lengthMm} />
        <Seen bladeId={bladeId} edge={edge} />
      </div>
      <div className="flex flex-col gap-5">
        <Steps
          bladeId={bladeId}
          edge={edge}
          recipeName={recipeName}
          departures={standing?.departures ?? []}
        />
        <Checks bladeId={bladeId} edge={edge} />
        <Counting bladeId={bladeId} edge={edge} standing={standing} />
      </div>
    </div>
  );
}

function EdgeFact({
  bladeId,
  edge,
  quantity,
}: {
  bladeId: string;
  edge: Edge;
  quantity: Quantity;
}) {
  const [open, setOpen] = useState(false);
  const inUse = edge.measurements.find((m) => m.quantity === quantity.name && m.in_use);
  const none = quantity.name === "micro_bevel_side_deg" && !inUse && edge.side_angle_deg !== null;
  return (
    <>
      <dt className="self-center text-ink-2">{quantity.label}</dt>
      <dd>
        <Pop
          open={open}
          onOpenChange={setOpen}
          trigger={
            <button
              type="button"
              aria-label={`Measure ${quantity.label} of edge ${edge.number}`}
              className={`min-h-11 cursor-pointer text-left underline decoration-line
                underline-offset-4 hover:decoration-ink`}
            >
              {none ? "none" : factWords(inUse, quantity)}
              {inUse && inUse.standing !== "measured_here" ? (
                <span className="cond text-note text-ink-2">
                  {" "}
                  {labelOf("standings", inUse.standing)}
                </span>
              ) : null}
            </button>
          }
        >
          <MeasureForm
            bladeId={bladeId}
            edgeId={edge.id}
            quantity={quantity}
            label={`Edge ${edge.number}: ${quantity.label}`}
            onDone={() => setOpen(false)}
          />
          <div className="mt-4">
            <FactHistory measurements={edge.measurements} quantity={quantity} />
          </div>
        </Pop>
      </dd>
    </>
  );
}

function Steps({
  bladeId,
  edge,
  recipeName,
  departures,
}: {
  bladeId: string;
  edge: Edge;
  recipeName: string | undefined;
  departures: string[];
}) {
  const [editing, setEditing] = useState(false);
  const [typed, setTyped] = useState(() => edge.steps.map(typedStep));
  const save = useChange(
    (body: Body) => putEdge(bladeId, body),
    () => setEditing(false),
  );
  const refused = save.error instanceof Refused ? save.error : null;
  const steps = readSteps(typed);
  return (
    <section aria-label="Steps">
      <h3 className="font-semibold">
        {edge.factory
          ? "The maker's own edge"
          : recipeName
            ? `By “${recipeName}”`
            : edge.regime || "Steps"}
        {edge.strokes_per_side ? `, ${edge.strokes_per_side} strokes a side` : ""}
        {edge.minutes !== null ? `, ${edge.minutes} min` : ""}
      </h3>
      {editing ? (
        <>
          <StepsEditor
            steps={typed}
            onChange={setTyped}
            refusedField={refused?.problem.field}
            refusal={refused?.message ?? ""}
          />
          {save.error && !refused?.problem.field?.startsWith("steps.") ? (
            <p role="alert" className="text-rust">
              {save.error.message}
            </p>
          ) : null}
          <div className="mt-2 flex gap-3">
            <Button
              kind="next"
              disabled={!steps || save.isPending}
              onClick={() => (steps ? save.mutate({ id: edge.id, steps }) : undefined)}
            >
              Save steps
            </Button>
            <Button kind="quiet" onClick={() => setEditing(false)}>
              Cancel
            </Button>
          </div>
        </>
      ) : (
        <>
          <StepList steps={edge.steps} className="mt-1 pl-6" />
          {departures.map((d) => (
            <p key={d} className="border-l-4 border-glint pl-3 text-note">
              Other than the recipe, {d}.
            </p>
          ))}
          <Button
            kind="quiet"
            className="px-0"
            onClick={() => {
              setTyped(edge.steps.length ? edge.steps.map(typedStep) : [typedStep()]);
              setEditing(true);
            }}
          >
            {edge.steps.length ? "Change the procedure" : "Record the steps"}
          </Button>
        </>
      )}
    </section>
  );
}

function Checks({ bladeId, edge }: { bladeId: string; edge: Edge }) {
  const [start] = useState(() => ({
    minutes: edge.minutes?.toString() ?? "",
    removed: edge.steel_removed_mm?.toString() ?? "",
    arm: edge.arm,
    trouble: edge.trouble,
    note: edge.note,
    made_on: edge.made_on,
  }));
  const [typed, setTyped, , forget] = useDraft(`checks:${edge.id}`, start);
  const save = useChange((body: Body) => putEdge(bladeId, body));
  const refused = save.error instanceof Refused ? save.error : null;
  const numbers = { minutes: typedNumber(typed.minutes), removed: typedNumber(typed.removed) };
  const set = (name: keyof typeof typed) => (e: { target: { value: string } }) =>
    setTyped({ ...typed, [name]: e.target.value });
  const keep = () => {
    if (numbers.minutes === undefined || numbers.removed === undefined) return;
    if (JSON.stringify(typed) === JSON.stringify(start)) return;
    save.mutate(
      {
        id: edge.id,
        minutes: numbers.minutes,
        steel_removed_mm: numbers.removed,
        arm: typed.arm,
        trouble: typed.trouble,
        note: typed.note,
        made_on: typed.made_on,
      },
      { onSuccess: forget },
    );
  };
  return (
    <section aria-label="Notes of the sharpening" className="grid grid-cols-2 gap-3" onBlur={keep}>
      <Choice
        label="Burr"
        value={edge.burr_check}
        onPick={(picked) =>
          save.mutate({ id: edge.id, burr_check: picked as "" | "gone" | "traces" })
        }
      >
        <Options of={WORDS.burrChecks} />
      </Choice>
      <Choice
        label="Under the lamp"
        value={edge.lamp_check}
        onPick={(picked) =>
          save.mutate({
            id: edge.id,
            lamp_check: picked as "" | "nothing glints" | "glints",
          })
        }
      >
        <Options of={WORDS.lampChecks} />
      </Choice>
      <Field
        label="Minutes"
        inputMode="decimal"
        value={typed.minutes}
        onChange={set("minutes")}
        error={
          numbers.minutes === undefined
            ? `“${typed.minutes}” is not a number`
            : refused?.at("minutes")
        }
      />
      <Field
        label="Steel removed"
        unit="mm of height"
        inputMode="decimal"
        value={typed.removed}
        onChange={set("removed")}
        error={
          numbers.removed === undefined
            ? `“${typed.removed}” is not a number`
            : refused?.at("steel_removed_mm")
        }
      />
      <DayField label="Made on" value={typed.made_on} onChange={set("made_on")} />
      <Field
        label="Trouble"
        value={typed.trouble}
        onChange={set("trouble")}
        hint="burr that would not leave, steps repeated"
      />
      <Field
        className="col-span-2"
        label="Prepared as"
        term="arm"
        value={typed.arm}
        onChange={set("arm")}
        hint="Where a trial compares several preparations of this blade, such as coarse"
      />
      <LongField label="Note" className="col-span-2" value={typed.note} onChange={set("note")} />
      {edge.lamp_check === "glints" || edge.burr_check === "traces" ? (
        <p className="col-span-2 border-l-4 border-glint pl-3 text-note">
          {edge.lamp_check === "glints"
            ? "Something glints: the apex is not closed there, or a burr is folded over. A run " +
              "from here measures that."
            : "A burr that is left reads sharp at first and falls off in the first cuts."}
        </p>
      ) : null}
    </section>
  );
}

function Seen({ bladeId, edge }: { bladeId: string; edge: Edge }) {
  const [kind, setKind] = useState<Schemas["DamageBody"]["kind"]>("glint");
  const [place, setPlace] = useState("");
  const save = useChange(
    (body: Body) => putEdge(bladeId, body),
    () => setPlace(""),
  );
  const refused = save.error instanceof Refused ? save.error : null;
  const at = typedNumber(place);
  return (
    <section aria-label="Seen on the edge">
      <h3 className="font-semibold">Damage on this edge</h3>
      <ul>
        {edge.damage.map((d, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: two marks may stand at one place
          <li key={i} className="flex items-center gap-3">
            {d.kind} at {d.position_mm} mm
            <button
              type="button"
              className={`min-h-8 cursor-pointer text-note underline decoration-line
                underline-offset-4`}
              onClick={() =>
                save.mutate({ id: edge.id, damage: edge.damage.filter((_, other) => other !== i) })
              }
            >
              undo
            </button>
          </li>
        ))}
      </ul>
      <form
        className="mt-1 grid grid-cols-2 items-end gap-2 bench:grid-cols-[8rem_9rem_auto]"
        noValidate
        onSubmit={(e) => {
          e.preventDefault();
          if (typeof at === "number")
            save.mutate({ id: edge.id, damage: [...edge.damage, { kind, position_mm: at }] });
        }}
      >
        <Choice label="What" value={kind} onPick={(picked) => setKind(picked as typeof kind)}>
          <Options of={WORDS.damages} />
        </Choice>
        <Field
          label="where"
          unit="mm from the heel"
          inputMode="decimal"
          value={place}
          onChange={(e) => setPlace(e.target.value)}
          error={at === undefined ? "not a number" : refused?.at("damage")}
        />
        <Button type="submit">Add damage</Button>
      </form>
    </section>
  );
}

function Counting({
  bladeId,
  edge,
  standing,
}: {
  bladeId: string;
  edge: Edge;
  standing: Schemas["EdgeStandingOut"] | undefined;
}) {
  const [reason, setReason] = useState(edge.overrule_reason);
  const save = useChange((body: Body) => putEdge(bladeId, body));
  const remove = useChange((id: string) => deleteEdge(bladeId, id));
  const refused = save.error instanceof Refused ? save.error : null;
  return (
    <section aria-label="Does it count">
      <h3 className="font-semibold">Does it count?</h3>
      <p>
        {standing?.settled.state === "settled"
          ? "Yes"
          : standing?.settled.state === "unknown"
            ? "Not known yet"
            : "No"}
        , by the usual rule: {standing?.settled.says}.
      </p>
      <Tick
        label="It is the maker's own edge"
        checked={edge.factory}
        onTick={(on) => save.mutate({ id: edge.id, factory: on })}
      />
      <Tick
        label={`It is at least edge ${edge.number}; what was sharpened before is not known`}
        checked={edge.number_is_least}
        onTick={(on) => save.mutate({ id: edge.id, number_is_least: on })}
      />
      <Field
        label="Decide otherwise, because"
        value={reason}
        onChange={(e) => setReason(e.target.value)}
        error={refused?.at("overrule_reason")}
        hint="The reason stays visible, and results are shown with and without."
      />
      <div className="mt-2 flex flex-wrap gap-3">
        <Button
          onClick={() => save.mutate({ id: edge.id, overrule: true, overrule_reason: reason })}
        >
          It counts
        </Button>
        <Button
          onClick={() => save.mutate({ id: edge.id, overrule: false, overrule_reason: reason })}
        >
          It does not
        </Button>
        {edge.overrule !== null ? (
          <Button
            kind="quiet"
            onClick={() => save.mutate({ id: edge.id, overrule: null, overrule_reason: "" })}
          >
            Follow the rule again
          </Button>
        ) : null}
        <Button kind="quiet" onClick={() => remove.mutate(edge.id)}>
          Delete edge: recorded by mistake
        </Button>
      </div>
      {remove.error || (save.error && !refused?.problem.field) ? (
        <p role="alert" className="text-rust">
          {(remove.error ?? save.error)?.message}
        </p>
      ) : null}
    </section>
  );
}
