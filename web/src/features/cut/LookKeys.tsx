import { OUTCOMES, SEEN } from "../../domain/outcomes";
import { Kbd } from "../../ui/Kbd";
import type { KeyChoice } from "./keyChoice";

/** What can be said of a look that passes or fails, one key or one thumb each. */
export function LookKeys({
  inspects,
  due,
  keys,
  onSay,
}: {
  inspects: boolean;
  due: boolean;
  keys: KeyChoice;
  onSay: (outcome: string) => void;
}) {
  return (
    <fieldset
      aria-label={inspects ? "What the lamp shows" : "What the check says"}
      className={`flex flex-wrap gap-1 rounded-edge border-[1.5px] p-1
        ${due ? "border-next" : "border-line"}`}
    >
      {(inspects ? SEEN : OUTCOMES).map(([, outcome, words]) => (
        <button
          key={outcome}
          type="button"
          onClick={() => onSay(outcome)}
          className={`flex min-h-16 min-w-16 cursor-pointer flex-col items-center justify-center
            gap-1 rounded-edge px-1.5 font-semibold max-bench:grow
            ${due ? "bg-next text-on-next" : ""}`}
        >
          {words}
          {keys.lettersOn ? <Kbd>{(keys.letters[outcome] ?? "").toUpperCase()}</Kbd> : null}
        </button>
      ))}
    </fieldset>
  );
}
