import { FORCE } from "../../domain/checks";
import { labelOf, WORDS } from "../../domain/words";
import { CHECKS, USUAL_OF_CHECK } from "../../domain/words.gen";
import { Choice, Option, Options } from "../../ui/Choice";
import { Field } from "../../ui/Field";
import { Tick } from "../../ui/Tick";
import { type CheckDraft, type MethodDraft, NEW_OWN, type OwnDraft, withCheck } from "./draft";
import { cellOf, type PartProps, textOf } from "./fields";
import { Part } from "./Part";
import { ReadingScatter } from "./ReadingScatter";
import { Rows } from "./Rows";

const OWN = "own check";
const BLANK: CheckDraft = { kind: "paper", readings: "2", material: "thin paper", own: null };

/** How sharpness is checked: by which checks, and when. */
export function ChecksPart(props: PartProps) {
  const { draft: d, onChange, at } = props;
  return (
    <Part title="Checks">
      <Rows
        error={at("checks")}
        rows={d.checks}
        blank={BLANK}
        add="Add a check"
        onChange={(checks) => onChange({ ...d, checks })}
      >
        {(check, _, index) => (
          <CheckFields
            check={check}
            onChange={(to) => onChange(withCheck(d, index, { ...check, ...to }))}
          />
        )}
      </Rows>
      <Schedule {...props} />
    </Part>
  );
}

function CheckFields({
  check,
  onChange,
}: {
  check: CheckDraft;
  onChange: (part: Partial<CheckDraft>) => void;
}) {
  const row = CHECKS.find((each) => each.key === check.kind);
  const isJudged = check.own ? check.own.result !== "number" : row?.is_judged;
  const pick = (kind: string) => {
    if (kind === OWN) return onChange({ kind: "", own: NEW_OWN, readings: "1", material: "" });
    const { material, tries } = USUAL_OF_CHECK[kind as keyof typeof USUAL_OF_CHECK];
    return onChange({ kind, own: null, material, readings: String(tries) });
  };
  return (
    <>
      <Choice
        label="Check"
        value={check.own ? OWN : check.kind}
        onPick={pick}
        hint={row?.caution || undefined}
      >
        {CHECKS.map(({ key, name }) => (
          <Option key={key} value={key}>
            {name}
          </Option>
        ))}
        <Option value={OWN}>a check of my own …</Option>
      </Choice>
      <Field
        label={isJudged ? "Tries at each check" : "Readings at each check"}
        inputMode="numeric"
        {...cellOf(check, onChange, "readings")}
      />
      <Field label="On what" {...cellOf(check, onChange, "material")} />
      {check.own ? <OwnFields check={check} own={check.own} onChange={onChange} /> : null}
      {check.kind === FORCE.key ? <ReadingScatter check={check} onChange={onChange} /> : null}
    </>
  );
}

/** What a check of one's own is called, and what it shows. */
function OwnFields({
  check,
  own,
  onChange,
}: {
  check: CheckDraft;
  own: OwnDraft;
  onChange: (part: Partial<CheckDraft>) => void;
}) {
  const set = (part: Partial<OwnDraft>) => onChange({ own: { ...own, ...part } });
  return (
    <>
      <Field
        label="Name of your check"
        placeholder="hair whittling"
        {...cellOf(check, onChange, "kind")}
      />
      <Choice
        label="It shows"
        value={own.result}
        onPick={(result) => set({ result: result as OwnDraft["result"] })}
      >
        <Options of={WORDS.ownResults} />
      </Choice>
      {own.result === "scale" ? (
        <Field
          label="Grades, sharpest first"
          placeholder="whittles, splits, cuts, slides"
          hint="2 to 9, with commas between; key 1 is the sharpest"
          {...cellOf(own, set, "grades")}
        />
      ) : null}
      {own.result === "number" ? (
        <span className="grid grid-cols-2 gap-3">
          <Field label="Unit" placeholder="mm" {...cellOf(own, set, "unit")} />
          <Choice
            label="A sharp edge reads"
            value={own.sharpIs}
            onPick={(sharpIs) => set({ sharpIs: sharpIs as OwnDraft["sharpIs"] })}
          >
            <Options of={WORDS.sharpIs} />
          </Choice>
        </span>
      ) : null}
      <span className="bench:col-span-3">
        <Tick
          label="It touches the body: skin, nail or hair on the body"
          checked={own.touchesBody}
          onTick={(touchesBody) => set({ touchesBody })}
        />
      </span>
    </>
  );
}

/** When sharpness is checked, and how often a fresh edge is read. */
function Schedule(props: PartProps) {
  const { draft: d, onChange, at } = props;
  const isGeometric = d.schedule === "geometric";
  return (
    <div className="mt-4 grid grid-cols-2 gap-3 bench:grid-cols-4">
      <Choice
        label="Checked"
        value={d.schedule}
        onPick={(picked) => onChange({ ...d, schedule: picked as MethodDraft["schedule"] })}
        error={at("schedule")}
      >
        <Options of={WORDS.schedules} />
      </Choice>
      {d.checks.some((check) => check.kind === FORCE.key) ? (
        <Field
          label="Fresh edge"
          unit="readings"
          inputMode="numeric"
          {...textOf(props, "startReadings")}
          error={at("start_readings")}
        />
      ) : null}
      {d.schedule === "every" || isGeometric ? (
        <Field
          label={isGeometric ? "First at" : "Every"}
          unit={d.unit}
          inputMode="decimal"
          {...textOf(props, "every")}
          error={at("every")}
        />
      ) : null}
      {isGeometric ? (
        <Field
          label="then each time"
          unit="times as far"
          inputMode="decimal"
          {...textOf(props, "growth")}
          error={at("growth")}
        />
      ) : null}
      {d.schedule === "at" ? (
        <Field
          className="col-span-2"
          label="Counts"
          unit={d.unit}
          {...textOf(props, "at")}
          error={at("at")}
          hint={`${labelOf("schedules", "at")}, such as 1, 2, 4, 6`}
        />
      ) : null}
    </div>
  );
}
