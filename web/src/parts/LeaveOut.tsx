import { type LeftOut, rememberLeftOut, toggled } from "../domain/leftOut";
import { WORDS } from "../domain/words";
import { Tick } from "../ui/Tick";

/** What stays out of whatever is sent or printed; remembered for the next time. */
export function LeaveOut({
  out,
  onPick,
}: {
  out: readonly LeftOut[];
  onPick: (out: readonly LeftOut[]) => void;
}) {
  return (
    <fieldset className="flex flex-wrap gap-x-6">
      <legend className="text-note font-medium text-ink-2">Leave out</legend>
      {WORDS.leftOut.map(([each, label]) => (
        <Tick
          key={each}
          label={label}
          checked={out.includes(each)}
          onTick={() => {
            const next = toggled(out, each);
            rememberLeftOut(next);
            onPick(next);
          }}
        />
      ))}
    </fieldset>
  );
}
