import type { ReactNode } from "react";
import { Choice, Option } from "../../ui/Choice";
import { Field, LongField } from "../../ui/Field";
import { CHECKS, type CheckKind, JUDGED, type MethodDraft, type StopKind } from "./draft";
import { StageChecks } from "./StageChecks";

interface Props {
  draft: MethodDraft;
  onChange: (draft: MethodDraft) => void;
  /** What is wrong at a field of the wire, if anything. */
  at: (field: string) => string | undefined;
}

const UNITS = ["cuts", "mm", "m", "in", "ft", "cycles", "layers", "strokes"] as const;
const STOPS: ReadonlyArray<readonly [StopKind, string]> = [
  ["limit", "a stage is lost"],
  ["stages", "all stages are lost, in order"],
  ["dose", "an amount is cut"],
  ["cycles", "so many rounds are done"],
  ["tester", "the tester says so"],
];

/**
 * Everything a method says, in the order of the bench: what is cut, how it is looked at, what ends
 * it.
 */
export function MethodForm({ draft: d, onChange, at }: Props) {
  const set = (part: Partial<MethodDraft>) => onChange({ ...d, ...part });
  const text = (
    name:
      | "name"
      | "surface"
      | "piece"
      | "contact"
      | "zone"
      | "every"
      | "growth"
      | "at"
      | "stations"
      | "startReadings",
  ) => ({
    value: d[name],
    onChange: (e: { target: { value: string } }) => set({ [name]: e.target.value }),
  });
  return (
    <div className="flex flex-col gap-7">
      <Part title="What is cut">
        <div className="grid grid-cols-2 gap-3 bench:grid-cols-4">
          <Field
            className="col-span-2"
            label="Name of the method"
            {...text("name")}
            error={at("name")}
          />
          <Choice
            label="Medium"
            value={d.medium}
            onPick={(picked) => set({ medium: picked as MethodDraft["medium"] })}
          >
            <Option value="rope">rope</Option>
            <Option value="board">corrugated board</Option>
            <Option value="card">card stack</Option>
            <Option value="mixed">several, by a recipe</Option>
          </Choice>
          <Choice
            label="Kind of cut"
            value={d.cut}
            onPick={(picked) => set({ cut: picked as MethodDraft["cut"] })}
          >
            <Option value="slice">slice</Option>
            <Option value="push">push</Option>
            <Option value="stroke">machine stroke</Option>
          </Choice>
          <Field label="Surface under the cut" {...text("surface")} />
          <Choice
            label="Counted in"
            value={d.unit}
            onPick={(picked) => set({ unit: picked as MethodDraft["unit"] })}
          >
            {UNITS.map((unit) => (
              <Option key={unit} value={unit}>
                {unit}
              </Option>
            ))}
          </Choice>
          <Field
            label="One tap counts"
            unit={d.unit}
            inputMode="decimal"
            {...text("piece")}
            error={at("piece")}
          />
          <Field
            label="Contact length a cut"
            unit="mm"
            inputMode="decimal"
            {...text("contact")}
            error={at("contact_mm")}
          />
          <Field
            label="Length of edge used"
            unit="mm"
            inputMode="decimal"
            {...text("zone")}
            error={at("zone_length_mm")}
            hint="empty: as the run's zone says"
          />
          <Field
            className="col-span-2"
            label="Stations the edge is read at"
            unit="mm from the heel"
            {...text("stations")}
            error={at("stations_mm")}
            hint="such as 20, 44, 68; beside the zone they are a control"
          />
        </div>
        {d.medium === "mixed" ? (
          <Rows
            title="Recipe"
            error={at("recipe")}
            rows={d.recipe}
            blank={{ medium: "", amount: "", unit: "" }}
            add="One more medium"
            onChange={(recipe) => set({ recipe })}
          >
            {(part, change) => (
              <>
                <Field
                  label="Medium"
                  value={part.medium}
                  onChange={(e) => change({ medium: e.target.value })}
                />
                <Field
                  label="Amount"
                  inputMode="decimal"
                  value={part.amount}
                  onChange={(e) => change({ amount: e.target.value })}
                />
                <Field
                  label="Counted in"
                  value={part.unit}
                  placeholder={d.unit}
                  onChange={(e) => change({ unit: e.target.value })}
                />
              </>
            )}
          </Rows>
        ) : null}
      </Part>
      <Part title="How sharpness is looked at">
        <Rows
          error={at("checks")}
          rows={d.checks}
          blank={{ kind: "paper" as CheckKind, readings: "1", material: "" }}
          add="One more kind of check"
          onChange={(checks) => set({ checks })}
        >
          {(check, change) => (
            <>
              <Choice
                label="Check"
                value={check.kind}
                onPick={(picked) => change({ kind: picked as CheckKind })}
                hint={
                  check.kind === "shave" ? "Not on skin: paper or a hair sample does." : undefined
                }
              >
                {CHECKS.map(([kind, label]) => (
                  <Option key={kind} value={kind}>
                    {label}
                  </Option>
                ))}
              </Choice>
              <Field
                label={JUDGED.includes(check.kind) ? "Tries each time" : "Readings each time"}
                inputMode="numeric"
                value={check.readings}
                onChange={(e) => change({ readings: e.target.value })}
              />
              <Field
                label="On what"
                value={check.material}
                onChange={(e) => change({ material: e.target.value })}
              />
            </>
          )}
        </Rows>
        <div className="mt-4 grid grid-cols-2 gap-3 bench:grid-cols-4">
          <Choice
            label="Checked"
            value={d.schedule}
            onPick={(picked) => set({ schedule: picked as MethodDraft["schedule"] })}
            error={at("schedule")}
          >
            <Option value="adaptive">when Kessik says</Option>
            <Option value="every">at even gaps</Option>
            <Option value="geometric">at growing gaps</Option>
            <Option value="at">at counts I name</Option>
            <Option value="ends">before and after the dose</Option>
          </Choice>
          {d.checks.some((c) => c.kind === "force") ? (
            <Field
              label="Fresh edge"
              unit="readings"
              inputMode="numeric"
              {...text("startReadings")}
              error={at("start_readings")}
            />
          ) : null}
          {d.schedule === "every" || d.schedule === "geometric" ? (
            <Field
              label={d.schedule === "every" ? "Every" : "First at"}
              unit={d.unit}
              inputMode="decimal"
              {...text("every")}
              error={at("every")}
            />
          ) : null}
          {d.schedule === "geometric" ? (
            <Field
              label="then each time"
              unit="times as far"
              inputMode="decimal"
              {...text("growth")}
              error={at("growth")}
            />
          ) : null}
          {d.schedule === "at" ? (
            <Field
              className="col-span-2"
              label="Counts"
              unit={d.unit}
              {...text("at")}
              error={at("at")}
              hint="1, 2, 4, 6"
            />
          ) : null}
        </div>
      </Part>
      <Part title="Stages, in the order they are lost">
        <Rows
          error={at("stages") ?? at("keen_gf") ?? at("dull_gf")}
          rows={d.stages}
          blank={{
            name: "",
            check: d.checks[0]?.kind ?? "force",
            limit: "",
            onDoubt: false,
            also: [] as CheckKind[],
            together: "any" as const,
          }}
          add="One more stage"
          onChange={(stages) => set({ stages })}
        >
          {(stage, change) => (
            <>
              <Field
                label="Stage"
                value={stage.name}
                onChange={(e) => change({ name: e.target.value })}
              />
              <Choice
                label="goes by"
                value={stage.check}
                onPick={(picked) => change({ check: picked as CheckKind })}
              >
                {CHECKS.filter(([kind]) => kind === "force" || JUDGED.includes(kind)).map(
                  ([kind, label]) => (
                    <Option key={kind} value={kind}>
                      {label}
                    </Option>
                  ),
                )}
              </Choice>
              {stage.check === "force" ? (
                <Field
                  label="Lost above"
                  unit="gf"
                  inputMode="decimal"
                  value={stage.limit}
                  onChange={(e) => change({ limit: e.target.value })}
                />
              ) : (
                <StageChecks stage={stage} checks={d.checks} onChange={change} />
              )}
            </>
          )}
        </Rows>
      </Part>
      <Part title="A run ends when">
        <Rows
          error={at("ends")}
          rows={d.ends}
          blank={{ kind: "dose" as StopKind, stage: "", confirm: "none" as const, amount: "" }}
          add="or when"
          onChange={(ends) => set({ ends })}
        >
          {(rule, change) => (
            <>
              <Choice
                label="Rule"
                value={rule.kind}
                onPick={(picked) => change({ kind: picked as StopKind })}
              >
                {STOPS.map(([kind, label]) => (
                  <Option key={kind} value={kind}>
                    {label}
                  </Option>
                ))}
              </Choice>
              {rule.kind === "limit" ? (
                <>
                  <Choice
                    label="Stage"
                    value={rule.stage}
                    onPick={(picked) => change({ stage: picked })}
                  >
                    <Option value="">choose</Option>
                    {d.stages.map((s) => (
                      <Option key={s.name} value={s.name}>
                        {s.name}
                      </Option>
                    ))}
                  </Choice>
                  <Choice
                    label="Confirmed by"
                    value={rule.confirm}
                    onPick={(picked) => change({ confirm: picked as typeof rule.confirm })}
                  >
                    <Option value="none">nothing more</Option>
                    <Option value="same_count">the next reading at the same count</Option>
                    <Option value="next_check">the next check</Option>
                  </Choice>
                </>
              ) : rule.kind === "dose" || rule.kind === "cycles" ? (
                <Field
                  label={rule.kind === "dose" ? "Amount" : "Rounds"}
                  unit={rule.kind === "dose" ? d.unit : ""}
                  inputMode="decimal"
                  value={rule.amount}
                  onChange={(e) => change({ amount: e.target.value })}
                />
              ) : null}
            </>
          )}
        </Rows>
      </Part>
      <Part title="At the bench">
        <div className="grid gap-3 bench:grid-cols-2">
          <LongField
            label="A cut is spoiled when"
            value={d.spoiled}
            onChange={(e) => set({ spoiled: e.target.value })}
          />
          <LongField
            label="Safety notes, one a line"
            value={d.cautions}
            onChange={(e) => set({ cautions: e.target.value })}
            hint="Your workshop's own rules come first."
          />
          <LongField
            className="bench:col-span-2"
            label="In short, for whoever reads the result"
            value={d.note}
            onChange={(e) => set({ note: e.target.value })}
          />
        </div>
      </Part>
    </div>
  );
}

function Part({ title, children }: { title: string; children: ReactNode }) {
  return (
    <section aria-label={title} className="border-t-[1.5px] border-ink pt-2">
      <h2 className="mb-2 text-lead font-bold">{title}</h2>
      {children}
    </section>
  );
}

/** Lines of a list that can grow, shrink and change their order. */
function Rows<T extends object>({
  title,
  rows,
  blank,
  add,
  error,
  onChange,
  children,
}: {
  title?: string;
  rows: readonly T[];
  blank: T;
  add: string;
  error: string | undefined;
  onChange: (rows: T[]) => void;
  children: (row: T, change: (part: Partial<T>) => void) => ReactNode;
}) {
  const small = "min-h-11 min-w-11 cursor-pointer self-end disabled:opacity-30";
  return (
    <div>
      {title ? <h3 className="mt-3 font-semibold">{title}</h3> : null}
      {rows.map((row, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: rows have no name, and are edited in place
        <div key={i} className="mt-2 flex flex-wrap gap-2">
          <div className="grid min-w-0 flex-1 basis-72 grid-cols-1 gap-3 bench:grid-cols-3">
            {children(row, (part) =>
              onChange(rows.map((r, at) => (at === i ? { ...r, ...part } : r))),
            )}
          </div>
          <button
            type="button"
            aria-label="Move up"
            disabled={i === 0}
            className={small}
            onClick={() =>
              onChange(
                rows.map((r, at) => (at === i ? (rows[i - 1] ?? r) : at === i - 1 ? row : r)),
              )
            }
          >
            ↑
          </button>
          <button
            type="button"
            aria-label="Take this line out"
            className={small}
            onClick={() => onChange(rows.filter((_, at) => at !== i))}
          >
            ×
          </button>
        </div>
      ))}
      {error ? (
        <p role="alert" className="mt-1 text-note font-medium text-rust">
          {error[0]?.toUpperCase()}
          {error.slice(1)}.
        </p>
      ) : null}
      <button
        type="button"
        className={`mt-1 min-h-11 cursor-pointer font-semibold underline decoration-line
          underline-offset-4`}
        onClick={() => onChange([...rows, blank])}
      >
        {add}
      </button>
    </div>
  );
}
