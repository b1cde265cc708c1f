import { type FormEvent, useState } from "react";
import type { Schemas } from "../api/client";
import type { Log } from "../api/events";
import { type CheckRows, rowOf } from "../domain/checks";
import { typedNumber } from "../domain/format";
import { LIMITS } from "../domain/limits.gen";

type Event = Schemas["EventOut"];
type Becomes = Record<string, unknown>;
interface NumberField {
  readonly name: string;
  readonly label: string;
  readonly least: number;
  readonly most: number;
}

const FIELD = "min-h-11 min-w-0 rounded-edge border-[1.5px] border-line bg-sheet px-2";
const LINK = "min-h-11 cursor-pointer px-2 font-semibold underline underline-offset-4";
const PLACE: NumberField = numberField("position_mm", "mm from the heel", LIMITS.position_mm);
const COUNT: NumberField = numberField("count_at", "At count", LIMITS.count);

function numberField(name: string, label: string, limit: { least: number; most: number }) {
  return { name, label, least: limit.least, most: limit.most };
}

function numbersOf({ kind, payload }: Event, rows: CheckRows): NumberField[] {
  if (kind === "reading")
    return [numberField("value", "Reading", rowOf(rows, String(payload.check ?? "force")))];
  if (kind === "cut") return [numberField("amount", "Amount", LIMITS.cuts_at_once)];
  return kind === "strop" ? [numberField("strokes", "Strokes", LIMITS.strokes)] : [];
}

/** Correct an entry of the log: its value, its place, its count; exclude it, or undo it. */
export function CorrectEntry({
  event,
  rows,
  log,
  onDone,
}: {
  event: Event;
  rows: CheckRows;
  log: Log;
  onDone: () => void;
}) {
  const become = (becomes: Becomes | null) =>
    void log("correction", { target: event.id, becomes }).then(onDone);
  const isLook = event.kind === "reading" || event.kind === "outcome";
  return (
    <div className="mt-2 flex flex-col gap-2 pl-20">
      {event.not_understood ? null : <Becoming event={event} rows={rows} onBecome={become} />}
      {isLook || event.not_understood ? (
        <Exclude target={event.id} log={log} onDone={onDone} />
      ) : (
        <button
          type="button"
          className={`${LINK} self-start text-rust`}
          onClick={() => become(null)}
        >
          Undo this entry
        </button>
      )}
    </div>
  );
}

function Exclude({ target, log, onDone }: { target: string; log: Log; onDone: () => void }) {
  const [reason, setReason] = useState("");
  const exclude = (e: FormEvent) => {
    e.preventDefault();
    if (reason.trim()) void log("strike", { target, reason: reason.trim() }).then(onDone);
  };
  return (
    <form onSubmit={exclude} className="flex gap-2">
      <input
        aria-label="Reason to exclude it"
        placeholder="reason"
        value={reason}
        onChange={(e) => setReason(e.target.value)}
        className={`${FIELD} flex-1`}
      />
      <button type="submit" className={`${LINK} text-rust`}>
        Exclude
      </button>
    </form>
  );
}

/** What an entry becomes: a number typed, words, or another outcome; and where and when it was. */
function Becoming({
  event,
  rows,
  onBecome,
}: {
  event: Event;
  rows: CheckRows;
  onBecome: (becomes: Becomes) => void;
}) {
  const { kind, payload } = event;
  const isLook = kind === "reading" || kind === "outcome";
  const fields = [...numbersOf(event, rows), ...(isLook ? [PLACE] : [])];
  const hasCount = isLook || kind === "spoiled" || kind === "note";
  const before: Record<string, string> = Object.fromEntries([
    ...fields.map(({ name }) => [name, String(payload[name] ?? "")]),
    [COUNT.name, String(event.count_at)],
    ["text", String(payload.text ?? "")],
  ]);
  const [typed, setTyped] = useState(before);
  const numbers = hasCount ? [...fields, COUNT] : fields;
  const changed = numbers.filter(({ name }) => typed[name] !== before[name]);
  const isWrong = ({ name, least, most }: NumberField) => {
    const value = typedNumber(typed[name] ?? "");
    return typeof value !== "number" || value < least || value > most;
  };
  const words = kind === "note" && typed.text !== before.text ? typed.text?.trim() : undefined;
  const save = (e: FormEvent) => {
    e.preventDefault();
    if (changed.some(isWrong) || words === "") return;
    const becomes: Becomes = words === undefined ? {} : { text: words };
    for (const { name } of changed) becomes[name] = typedNumber(typed[name] ?? "");
    if (Object.keys(becomes).length) onBecome(becomes);
  };
  return (
    <>
      {kind === "outcome" ? (
        <OtherOutcomes payload={payload} rows={rows} onBecome={onBecome} />
      ) : null}
      {numbers.length || kind === "note" ? (
        <form onSubmit={save} className="flex flex-wrap items-end gap-2">
          {kind === "note" ? (
            <Labelled
              label="Words"
              text={typed.text ?? ""}
              isWrong={words === ""}
              isWide
              onType={(text) => setTyped({ ...typed, text })}
            />
          ) : null}
          {numbers.map((field) => (
            <Labelled
              key={field.name}
              label={field.label}
              text={typed[field.name] ?? ""}
              isWrong={changed.includes(field) && isWrong(field)}
              onType={(text) => setTyped({ ...typed, [field.name]: text })}
            />
          ))}
          <button type="submit" className={LINK}>
            Save correction
          </button>
        </form>
      ) : null}
    </>
  );
}

function Labelled({
  label,
  text,
  isWrong,
  isWide = false,
  onType,
}: {
  label: string;
  text: string;
  isWrong: boolean;
  isWide?: boolean;
  onType: (text: string) => void;
}) {
  return (
    <label className={`flex flex-col text-note text-ink-2 ${isWide ? "flex-1" : ""}`}>
      {label}
      <input
        aria-label={label}
        inputMode={isWide ? "text" : "decimal"}
        value={text}
        onChange={(e) => onType(e.target.value)}
        aria-invalid={isWrong}
        className={`${FIELD} text-ink ${isWide ? "" : "w-24"} aria-invalid:border-rust`}
      />
    </label>
  );
}

function OtherOutcomes({
  payload,
  rows,
  onBecome,
}: {
  payload: Event["payload"];
  rows: CheckRows;
  onBecome: (becomes: Becomes) => void;
}) {
  const others = rowOf(rows, String(payload.check)).outcomes.filter(
    ({ key }) => key !== payload.outcome,
  );
  return (
    <div className="flex flex-wrap gap-2">
      {others.map(({ key, label }) => (
        <button key={key} type="button" className={LINK} onClick={() => onBecome({ outcome: key })}>
          {label}
        </button>
      ))}
    </div>
  );
}
