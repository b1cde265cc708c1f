import { newId } from "../../domain/ids";
import { WORDS } from "../../domain/words";
import { Button } from "../../ui/Button";
import { CellChoice, Choice, Option, Options } from "../../ui/Choice";
import { Field, LongField } from "../../ui/Field";
import { Tick } from "../../ui/Tick";
import type { TendKind, TypedMethod, TypedTending } from "./typedMethod";

const CELL = "min-h-11 w-20 rounded-edge border border-line bg-sheet px-2";
const TENDS = WORDS.tendings;

/** Everything of a method, to be changed: what the blades are in, read in which stages, and what
 *  is done again and again.
 */
export function MethodEditor({
  typed,
  wrong,
  onChange,
}: {
  typed: TypedMethod;
  wrong: (field: string) => string | undefined;
  onChange: (typed: TypedMethod) => void;
}) {
  const set = (part: Partial<TypedMethod>) => onChange({ ...typed, ...part });
  return (
    <fieldset className="grid grid-cols-1 gap-3 border-l-4 border-line pl-4 bench:grid-cols-6">
      <legend className="sr-only">Edit method</legend>
      <Field
        label="Name of the method"
        className="bench:col-span-2"
        value={typed.name}
        onChange={(e) => set({ name: e.target.value })}
        error={wrong("method.name")}
      />
      <Field
        label="Medium"
        className="bench:col-span-2"
        value={typed.medium}
        onChange={(e) => set({ medium: e.target.value })}
      />
      <Field
        label="Salt, by mass"
        unit="%"
        inputMode="decimal"
        value={typed.salt_percent}
        onChange={(e) => set({ salt_percent: e.target.value })}
        error={wrong("salt_percent")}
      />
      <Choice
        label="Read on"
        value={typed.scale}
        onPick={(v) => set({ scale: v as TypedMethod["scale"] })}
      >
        <Options of={WORDS.rustScales} />
      </Choice>
      <div className="bench:col-span-6">
        <p className="text-note font-medium text-ink-2">Each look in these stages</p>
        <div className="flex flex-wrap gap-x-6">
          {WORDS.inspectionStages.map(([stage, name]) => (
            <Tick
              key={stage}
              label={name}
              checked={typed.stages.includes(stage)}
              onTick={(on) =>
                set({
                  stages: WORDS.inspectionStages
                    .map(([each]) => each)
                    .filter((each) => (each === stage ? on : typed.stages.includes(each))),
                })
              }
            />
          ))}
        </div>
        <Wrong says={wrong("stages")} />
      </div>
      <Tending
        tending={typed.tending}
        wrong={wrong("tending")}
        onChange={(tending) => set({ tending })}
      />
      <LongField
        label="Steps, a line each"
        className="bench:col-span-6"
        value={typed.steps}
        onChange={(e) => set({ steps: e.target.value })}
      />
    </fieldset>
  );
}

/** What is done to the coupons again and again. */
function Tending({
  tending,
  wrong,
  onChange,
}: {
  tending: readonly TypedTending[];
  wrong: string | undefined;
  onChange: (tending: readonly TypedTending[]) => void;
}) {
  const set = (id: string, part: Partial<TypedTending>) =>
    onChange(tending.map((each) => (each.id === id ? { ...each, ...part } : each)));
  return (
    <div className="bench:col-span-6">
      <p className="text-note font-medium text-ink-2">Repeated interventions</p>
      {tending.map((each, place) => (
        <div key={each.id} className="mt-1 flex flex-wrap items-center gap-2">
          <span className="min-w-52">
            <CellChoice
              says={`What is done, ${place + 1}`}
              value={each.kind}
              onPick={(v) => set(each.id, { kind: v as TendKind })}
            >
              {TENDS.map(([kind, name]) => (
                <Option key={kind} value={kind}>
                  {name}
                </Option>
              ))}
            </CellChoice>
          </span>
          {(["every_h", "from_h", "until_h"] as const).map((name) => (
            <label key={name} className="flex items-center gap-2">
              {{ every_h: "every", from_h: "from", until_h: "until" }[name]}
              <input
                className={CELL}
                inputMode="decimal"
                value={each[name]}
                onChange={(e) => set(each.id, { [name]: e.target.value })}
              />
              h
            </label>
          ))}
          <Button
            kind="quiet"
            aria-label={`Leave out what is done, ${place + 1}`}
            onClick={() => onChange(tending.filter((other) => other.id !== each.id))}
          >
            out
          </Button>
        </div>
      ))}
      <Wrong says={wrong} />
      <Button
        className="mt-2"
        onClick={() =>
          onChange([
            ...tending,
            { id: newId(), kind: "sprayed", every_h: "12", from_h: "0", until_h: "" },
          ])
        }
      >
        Add a repeated intervention
      </Button>
    </div>
  );
}

const Wrong = ({ says }: { says: string | undefined }) =>
  says ? (
    <p role="alert" className="text-note font-medium text-rust">
      {says}
    </p>
  ) : null;
