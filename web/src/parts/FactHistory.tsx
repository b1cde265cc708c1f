import { useState } from "react";
import { strikeMeasurement, useChange } from "../api/changes";
import type { Schemas } from "../api/client";
import { shown } from "../domain/quantities";
import { labelOf } from "../domain/words";
import { Button } from "../ui/Button";
import { Field } from "../ui/Field";
import { Note } from "../ui/Note";
import { TextButton } from "../ui/TextButton";

type Measurement = Schemas["MeasurementOut"];
type Quantity = Schemas["QuantityOut"];

export const factWords = (m: Measurement | undefined, quantity: Quantity): string =>
  !m ? "not known" : quantity.low === null ? m.words : shown(m.value, quantity);

/**
 * Every measurement of one fact: the one that counts first, struck ones last and still to be read.
 */
export function FactHistory({
  measurements,
  quantity,
}: {
  measurements: Measurement[];
  quantity: Quantity;
}) {
  const own = measurements.filter((m) => m.quantity === quantity.name);
  if (own.length === 0) return <p className="text-note text-ink-2">Nothing is recorded yet.</p>;
  return (
    <ul aria-label={`Every value of ${quantity.label}`} className="flex flex-col gap-2">
      {own.map((m) => (
        <Entry key={m.id} m={m} quantity={quantity} />
      ))}
    </ul>
  );
}

function Entry({ m, quantity }: { m: Measurement; quantity: Quantity }) {
  const [asking, setAsking] = useState(false);
  const [reason, setReason] = useState("");
  const strike = useChange(
    (why: string) => strikeMeasurement(m.id, why),
    () => setAsking(false),
  );
  const stations = m.details.stations ?? [];
  return (
    <li className={`border-l-4 pl-3 ${m.in_use ? "border-ink" : "border-line"}`}>
      <p className={m.struck ? "line-through" : ""}>
        <b>{factWords(m, quantity)}</b> {labelOf("standings", m.standing)}
        {m.on ? `, ${m.on}` : ""}
        {m.instrument ? `, ${m.instrument}` : ""}
      </p>
      <Note>
        {m.in_use
          ? "in use"
          : m.struck
            ? `excluded: ${m.struck}`
            : "not in use: another is better known"}
        {m.note ? ` · ${m.note}` : ""}
        {stations.length
          ? ` · ${stations.map((s) => `${s.position_mm}: ${s.value_mm.toFixed(2)}`).join(", ")}`
          : ""}
      </Note>
      {m.hardness ? (
        <Note>
          {m.hardness.used.length} readings, {m.hardness.low_hrc.toFixed(1)} to{" "}
          {m.hardness.high_hrc.toFixed(1)} HRC
          {m.hardness.sd_hrc !== null ? `, standard deviation ${m.hardness.sd_hrc.toFixed(2)}` : ""}
          {m.hardness.correction_hrc
            ? ", corrected by " +
              `${m.hardness.correction_hrc > 0 ? "+" : "−"}${Math.abs(m.hardness.correction_hrc).toFixed(2)}`
            : ""}
        </Note>
      ) : null}
      {(m.hardness?.warnings ?? []).map((w) => (
        <p key={w} className="border-l-4 border-glint pl-2 text-note">
          {w}
        </p>
      ))}
      {m.remark && m.in_use ? <p className="text-note">{m.remark}</p> : null}
      {asking ? (
        <form
          className="mt-2 flex flex-wrap items-end gap-2"
          onSubmit={(e) => {
            e.preventDefault();
            if (reason.trim()) strike.mutate(reason);
          }}
        >
          <Field
            label="Why is it excluded?"
            value={reason}
            onChange={(e) => setReason(e.target.value)}
            autoFocus
          />
          <Button type="submit">Exclude</Button>
        </form>
      ) : (
        <TextButton small onClick={() => (m.struck ? strike.mutate("") : setAsking(true))}>
          {m.struck ? "Include again" : "Exclude"}
        </TextButton>
      )}
      {strike.error ? <p className="text-note text-rust">{strike.error.message}</p> : null}
    </li>
  );
}
