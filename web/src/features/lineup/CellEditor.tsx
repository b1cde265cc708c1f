import { type FormEvent, useState } from "react";
import { Refused, type Schemas } from "../../api/client";
import { typedNumber } from "../../domain/format";
import { Button } from "../../ui/Button";
import { Choice, Field } from "../../ui/Field";
import { Pop } from "../../ui/Pop";
import { patchBlade, putEdge, useLineUpChange } from "./changes";

type Blade = Schemas["BladeOut"];
type Cell = Schemas["CellOut"];
type Variable = Schemas["VariableOut"];

export const STANDINGS: Array<[Schemas["BladeBody"]["hardness_standing"] & string, string]> = [
  ["measured_here", "measured here"],
  ["measured_elsewhere", "measured elsewhere"],
  ["standard", "from a standard"],
  ["literature", "from the literature"],
  ["claimed", "claimed by the maker"],
  ["guessed", "guessed"],
];

const LOOK: Record<Cell["state"], string> = {
  matched: "",
  factor: "border-x-2 border-ink bg-sheet",
  confounded: "hatch-rust font-bold text-rust",
  pending: "ruled text-ink-2",
};

const SAID: Record<Cell["state"], string> = {
  matched: "matched",
  factor: "the factor",
  confounded: "not matched",
  pending: "not known",
};

/** One cell of the matrix: value, standing, state; changed in place. */
export function CellEditor({
  lineUp,
  blade,
  variable,
  cell,
}: {
  lineUp: Schemas["LineUpOut"];
  blade: Blade;
  variable: Variable;
  cell: Cell;
}) {
  const [open, setOpen] = useState(false);
  const none = variable.name === "micro_bevel_side_deg" && cell.state !== "pending";
  const value = cell.value;
  const shown =
    value === null
      ? none
        ? "none"
        : "not known"
      : `${value.toFixed(variable.decimals)}${variable.unit === "°" ? "°" : ` ${variable.unit}`}`;
  const trigger = (
    <button
      type="button"
      aria-label={`${blade.code}, ${variable.label}: ${shown}, ${SAID[cell.state]}. Change it`}
      title={cell.says || undefined}
      className="flex min-h-16 w-full cursor-pointer flex-col justify-center px-3 text-left hover:underline hover:decoration-line hover:underline-offset-4"
    >
      {shown}
      {value !== null && cell.standing && cell.standing !== "measured_here" ? (
        <span className="cond text-note font-normal">{cell.standing.replace("_", " ")}</span>
      ) : null}
      {variable.name === "side_angle_deg" && value !== null ? (
        <span className="cond text-note font-normal text-ink-2">{(2 * value).toFixed(1)}° included</span>
      ) : null}
    </button>
  );
  return (
    <td className={`p-0 ${LOOK[cell.state]}`} data-state={cell.state} data-variable={variable.name}>
      <Pop open={open} onOpenChange={setOpen} trigger={trigger}>
        {cell.says ? <p className="mb-3 text-note font-medium">{cell.says}</p> : null}
        {variable.name === "hardness_hrc" ? (
          <HardnessForm trialId={lineUp.trial.id} blade={blade} onDone={() => setOpen(false)} />
        ) : (
          <EdgeForm lineUp={lineUp} blade={blade} variable={variable} onDone={() => setOpen(false)} />
        )}
      </Pop>
    </td>
  );
}

function HardnessForm({ trialId, blade, onDone }: { trialId: string; blade: Blade; onDone: () => void }) {
  const [text, setText] = useState(blade.hardness_hrc?.toString() ?? "");
  const [standing, setStanding] = useState(blade.hardness_standing ?? "measured_here");
  const [low, setLow] = useState(blade.usual_hardness_low_hrc?.toString() ?? "");
  const [high, setHigh] = useState(blade.usual_hardness_high_hrc?.toString() ?? "");
  const save = useLineUpChange((change: Schemas["BladePatch"]) => patchBlade(trialId, blade.id, change), onDone);
  const numbers = [text, low, high].map(typedNumber);
  const refused = save.error instanceof Refused ? save.error : null;
  const wrong = (i: number, typed: string) => (numbers[i] === undefined ? `“${typed}” is not a number` : undefined);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (numbers.includes(undefined)) return;
    save.mutate({
      hardness_hrc: numbers[0] ?? null,
      hardness_standing: standing,
      usual_hardness_low_hrc: numbers[1] ?? null,
      usual_hardness_high_hrc: numbers[2] ?? null,
    });
  };
  return (
    <form onSubmit={submit} className="flex flex-col gap-3" noValidate>
      <Field
        label={`Hardness of ${blade.code}`}
        unit="HRC"
        inputMode="decimal"
        value={text}
        onChange={(e) => setText(e.target.value)}
        error={wrong(0, text) ?? refused?.at("hardness_hrc")}
        autoFocus
      />
      <Choice
        label="How is it known?"
        value={standing}
        onChange={(e) => setStanding(e.target.value as typeof standing)}
        hint="Only what was measured counts; the rest stays open."
      >
        {STANDINGS.map(([v, label]) => (
          <option key={v} value={v}>
            {label}
          </option>
        ))}
      </Choice>
      <div className="grid grid-cols-2 gap-3">
        <Field
          label="Usual, from"
          unit="HRC"
          inputMode="decimal"
          value={low}
          onChange={(e) => setLow(e.target.value)}
          error={wrong(1, low) ?? refused?.at("usual_hardness_low_hrc")}
        />
        <Field
          label="to"
          unit="HRC"
          inputMode="decimal"
          value={high}
          onChange={(e) => setHigh(e.target.value)}
          error={wrong(2, high) ?? refused?.at("usual_hardness_high_hrc")}
        />
      </div>
      <Button kind="next" type="submit" disabled={save.isPending}>
        Keep
      </Button>
    </form>
  );
}

/** Angle, micro-bevel and thickness belong to the edge: the newest, or those that were cut. */
function EdgeForm({
  lineUp,
  blade,
  variable,
  onDone,
}: {
  lineUp: Schemas["LineUpOut"];
  blade: Blade;
  variable: Variable;
  onDone: () => void;
}) {
  const name = variable.name as "side_angle_deg" | "micro_bevel_side_deg" | "thickness_behind_edge_mm";
  const edges = blade.edges ?? [];
  const cut = edges.filter((e) => lineUp.runs.some((r) => r.edge_id === e.id && !r.practice));
  const shown = cut.length ? cut : edges.slice(-1);
  const [typed, setTyped] = useState<Record<string, string>>(() =>
    Object.fromEntries(shown.map((e) => [e.id, e[name]?.toString() ?? ""])),
  );
  const save = useLineUpChange(async () => {
    for (const edge of shown)
      await putEdge(lineUp.trial.id, blade.id, { ...edge, [name]: typedNumber(typed[edge.id] ?? "") ?? null });
  }, onDone);
  const refused = save.error instanceof Refused ? save.error : null;
  const wrong = shown.find((e) => typedNumber(typed[e.id] ?? "") === undefined);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (!wrong) save.mutate(undefined);
  };
  return (
    <form onSubmit={submit} className="flex flex-col gap-3" noValidate>
      {shown.map((edge, i) => (
        <Field
          key={edge.id}
          label={`${blade.code}, edge ${edge.number}: ${variable.label}`}
          unit={variable.unit}
          inputMode="decimal"
          value={typed[edge.id] ?? ""}
          onChange={(e) => setTyped({ ...typed, [edge.id]: e.target.value })}
          error={wrong?.id === edge.id ? `“${typed[edge.id]}” is not a number` : refused?.at(name)}
          autoFocus={i === 0}
        />
      ))}
      <Button kind="next" type="submit" disabled={save.isPending}>
        Keep
      </Button>
    </form>
  );
}
