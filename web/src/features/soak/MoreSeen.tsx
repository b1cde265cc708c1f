import type { Refused } from "../../api/client";
import { WORDS } from "../../domain/words";
import { Field } from "../../ui/Field";
import { Fold } from "../../ui/Fold";
import { Tick } from "../../ui/Tick";
import type { Seen } from "./seen";
import { useNumbers } from "./useNumbers";

/** What parts are called, the best first: words that have an order; others are kept, too. */
const STATES = [
  ["pivot", WORDS.pivotStates],
  ["lock", WORDS.lockStates],
  ["handle", WORDS.handleStates],
] as const;

/** What else was seen: pits, stain, moving parts, a satin gone matte. */
export function MoreSeen({
  seen,
  refused,
  onSeen,
  onUnread,
}: {
  seen: Seen;
  refused: Refused | null;
  onSeen: (seen: Seen) => void;
  onUnread: (isUnread: boolean) => void;
}) {
  const { pits, deepest_pit_mm, stain_percent } = seen;
  const number = useNumbers(
    { pits, deepest_pit_mm, stain_percent },
    refused,
    (values, isUnread) => {
      onSeen({ ...seen, ...values });
      onUnread(isUnread);
    },
  );
  const text = (name: "pivot" | "lock" | "handle") => ({
    value: seen[name],
    list: `states-of-${name}`,
    onChange: (e: { target: { value: string } }) => onSeen({ ...seen, [name]: e.target.value }),
  });
  return (
    <Fold
      title="Pits, stain, pivot, lock, handle"
      className="mt-5 max-w-3xl border-t border-line pt-2"
    >
      <div className="grid grid-cols-3 gap-3">
        <Field label="Pits" {...number("pits")} />
        <Field label="Deepest" unit="mm" {...number("deepest_pit_mm")} />
        <Field label="Stained" unit="%" {...number("stain_percent")} />
        <Field label="Pivot" {...text("pivot")} />
        <Field label="Lock" {...text("lock")} />
        <Field label="Handle" {...text("handle")} />
        {STATES.map(([part, states]) => (
          <datalist key={part} id={`states-of-${part}`}>
            {states.map(([state]) => (
              <option key={state} value={state} />
            ))}
          </datalist>
        ))}
        <Tick
          label="The satin has gone matte"
          checked={seen.gone_matte}
          onTick={(on) => onSeen({ ...seen, gone_matte: on })}
        />
      </div>
    </Fold>
  );
}
