import { type FormEvent, useState } from "react";
import { putShot, putStandInShot, useChange } from "../../api/changes";
import { Refused, type Schemas } from "../../api/client";
import { typedNumber } from "../../domain/format";
import { newId } from "../../domain/ids";
import { WORDS } from "../../domain/words";
import { Button } from "../../ui/Button";
import { Choice, Options } from "../../ui/Choice";
import { DayField } from "../../ui/DayField";
import { Field, LongField } from "../../ui/Field";
import { OnOff } from "../../ui/OnOff";
import { type ReadLine, readLines } from "./typed";

type Surface = NonNullable<Schemas["ShotBody"]["surface"]>;
type Normalised = NonNullable<Schemas["ShotBody"]["normalised"]>;

/** A shot typed or pasted, an element a line; or one of the simulated analyser. */
export function ShotForm({
  bladeId,
  claim,
  number,
  onDone,
}: {
  bladeId: string;
  claim: string;
  number: number;
  onDone: () => void;
}) {
  const [id] = useState(newId);
  const [name, setName] = useState(String(number));
  const [text, setText] = useState("");
  const [surface, setSurface] = useState<Surface>("bare");
  const [normalised, setNormalised] = useState<Normalised>("unknown");
  const [by, setBy] = useState({ on: "", analyser: "", operator: "" });
  const save = useChange((shot: Schemas["ShotBody"]) => putShot(bladeId, id, shot), onDone);
  const refused = save.error instanceof Refused ? save.error : null;
  const lines = readLines(text);
  const wrong = lines.find((line) => line.wrong);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (wrong) return;
    save.mutate({ name, surface, normalised, readings: lines.map(reading), ...by });
  };
  return (
    <>
      <form onSubmit={submit} noValidate className="grid grid-cols-2 gap-3">
        <Field
          label="Shot"
          value={name}
          onChange={(e) => setName(e.target.value)}
          error={refused?.at("name")}
        />
        <Choice label="On" value={surface} onPick={(v) => setSurface(v as Surface)}>
          <Options of={WORDS.surfaces} />
        </Choice>
        <Choice
          label="Normalised to 100 %"
          className="col-span-2"
          value={normalised}
          onPick={(v) => setNormalised(v as Normalised)}
        >
          <Options of={WORDS.normalised} />
        </Choice>
        <LongField
          label="Elements, one a line: symbol, per cent, ±"
          hint="Cr 12.10 0.08; below the limit of detection: V <0.02"
          className="col-span-2"
          rows={9}
          value={text}
          onChange={(e) => setText(e.target.value)}
          error={wrong?.wrong ?? lineRefusal(refused, lines)}
        />
        <DayField
          label="Day"
          value={by.on}
          onChange={(e) => setBy({ ...by, on: e.target.value })}
          error={refused?.at("on")}
        />
        <Field
          label="Operator"
          value={by.operator}
          onChange={(e) => setBy({ ...by, operator: e.target.value })}
        />
        <Field
          label="Analyser, or another method"
          hint="Carbon by combustion or spark emission is a shot of its own"
          className="col-span-2"
          value={by.analyser}
          onChange={(e) => setBy({ ...by, analyser: e.target.value })}
        />
        {save.error && !refused?.problem.field ? (
          <p role="alert" className="col-span-2 text-rust">
            {save.error.message}
          </p>
        ) : null}
        <Button kind="next" type="submit" className="col-span-2" disabled={save.isPending}>
          Save shot
        </Button>
      </form>
      <Simulated bladeId={bladeId} claim={claim} name={name} onDone={onDone} />
    </>
  );
}

function reading(line: ReadLine): Schemas["ReadingBody"] {
  return {
    element: line.element,
    percent: line.percent,
    plus_minus_percent: line.plusMinus,
    detected: line.detected,
  };
}

/** A refusal names the reading by its place; what was typed is named by its line. */
function lineRefusal(refused: Refused | null, lines: readonly ReadLine[]): string | undefined {
  const place = /^readings\.(\d+)\./.exec(refused?.problem.field ?? "");
  const isOurs = place !== null || refused?.problem.field === "readings";
  if (!refused || !isOurs) return undefined;
  const line = place ? lines[Number(place[1])] : undefined;
  return line ? `line ${line.line}: ${refused.message}` : refused.message;
}

function Simulated({
  bladeId,
  claim,
  name,
  onDone,
}: {
  bladeId: string;
  claim: string;
  name: string;
  onDone: () => void;
}) {
  const [id] = useState(newId);
  const [grade, setGrade] = useState(claim);
  const [seconds, setSeconds] = useState("30");
  const [coated, setCoated] = useState(false);
  const [normalise, setNormalise] = useState(true);
  const shoot = useChange(
    (asked: Schemas["StandInShotBody"]) => putStandInShot(bladeId, id, asked),
    onDone,
  );
  const refused = shoot.error instanceof Refused ? shoot.error : null;
  const time = typedNumber(seconds);
  return (
    <details className="mt-7 border-t border-line pt-3">
      <summary className="min-h-11 cursor-pointer font-semibold">The simulated analyser</summary>
      <div className="grid grid-cols-2 gap-3">
        <Field
          label="True composition"
          value={grade}
          onChange={(e) => setGrade(e.target.value)}
          error={refused?.at("grade")}
        />
        <Field
          label="Counting"
          unit="s"
          inputMode="decimal"
          value={seconds}
          onChange={(e) => setSeconds(e.target.value)}
          error={
            time === undefined || time === null
              ? `“${seconds}” is not a number`
              : refused?.at("seconds")
          }
        />
        <OnOff label="Through a coating" on={coated} onTurn={setCoated} />
        <OnOff label="Normalise to 100 %" on={normalise} onTurn={setNormalise} />
        <Button
          className="col-span-2"
          disabled={shoot.isPending || !time}
          onClick={() =>
            shoot.mutate({
              name,
              grade,
              seconds: time ?? 30,
              through_coating: coated,
              normalise,
              seed: 0,
            })
          }
        >
          Add a simulated shot
        </Button>
      </div>
    </details>
  );
}
