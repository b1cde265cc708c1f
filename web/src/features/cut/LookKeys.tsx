import type { CheckRow } from "../../domain/checks";
import { Kbd } from "../../ui/Kbd";
import type { KeyChoice } from "./keyChoice";

/** What can be said of a look that passes or fails, one key or one thumb each. */
export function LookKeys({
  row,
  due,
  keys,
  onSay,
}: {
  row: CheckRow;
  due: boolean;
  keys: KeyChoice;
  onSay: (outcome: string) => void;
}) {
  return (
    <fieldset
      aria-label={`What the check shows: ${row.label}`}
      className={`flex flex-wrap gap-1 rounded-edge border-[1.5px] p-1
        ${due ? "border-next" : "border-line"}`}
    >
      {row.outcomes.map(({ key, label, letter }) => (
        <button
          key={key}
          type="button"
          onClick={() => onSay(key)}
          className={`flex min-h-16 min-w-16 cursor-pointer flex-col items-center justify-center
            gap-1 rounded-edge px-1.5 font-semibold max-bench:grow
            ${due ? "bg-next text-on-next" : ""}`}
        >
          {label}
          {keys.lettersOn ? <Kbd>{(keys.letters[key] ?? letter).toUpperCase()}</Kbd> : null}
        </button>
      ))}
    </fieldset>
  );
}
