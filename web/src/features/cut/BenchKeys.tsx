import type { ReactNode, RefObject } from "react";
import { Kbd } from "../../ui/Kbd";
import { isJudged } from "./benchWords";
import { LookKeys } from "./LookKeys";

interface Props {
  field: RefObject<HTMLInputElement | null>;
  typed: string;
  onTyped: (text: string) => void;
  due: boolean;
  asked: string;
  onSay: (outcome: string) => void;
  /** What was seen is being put at its place: nothing but the look is offered. */
  placing: boolean;
  practice: boolean;
  paused: boolean;
  onCut: () => void;
  onRead: () => void;
  onTakeBack: () => void;
  onNote: () => void;
  onBreak: () => void;
  onSpoiled: () => void;
  onStop: () => void;
  onVirtual: () => void;
  onLog: () => void;
}

const READ: Record<string, readonly [string, string]> = {
  effort: ["Effort, 0 to 10", "of 10"],
  rank: ["Rank by effort", "rank"],
  depth: ["Depth in mm", "mm"],
};

/** What a thumb or a key can do; every target at least 64 px. */
export function BenchKeys(p: Props) {
  return (
    <div className="flex flex-1 flex-wrap items-stretch justify-end gap-1.5">
      {isJudged(p.asked) ? (
        <LookKeys inspects={p.asked === "inspect"} due={p.due} onSay={p.onSay} />
      ) : (
        <form
          className={`flex items-stretch rounded-edge border-[1.5px] ${p.due ? "border-next" : "border-line"} max-bench:w-full`}
          onSubmit={(e) => {
            e.preventDefault();
            p.onRead();
          }}
        >
          <input
            ref={p.field}
            value={p.typed}
            onChange={(e) => p.onTyped(e.target.value)}
            inputMode="decimal"
            enterKeyHint="done"
            autoComplete="off"
            aria-label={READ[p.asked]?.[0] ?? "Reading in gf"}
            placeholder="reading"
            className="h-16 w-26 min-w-0 bg-transparent px-3 text-[1.6rem] font-bold placeholder:text-lead placeholder:font-normal placeholder:text-ink-2 max-bench:flex-1"
          />
          <button
            type="submit"
            className={`min-h-16 cursor-pointer px-3 font-semibold ${p.due ? "bg-next text-on-next" : "text-ink-2"}`}
          >
            {READ[p.asked]?.[1] ?? "gf"} <Kbd>Enter</Kbd>
          </button>
        </form>
      )}
      {p.placing ? null : <Steady {...p} />}
    </div>
  );
}

function Steady(p: Props) {
  return (
    <>
      {p.practice && p.asked === "force" ? (
        <Key onClick={p.onVirtual} name="R" lead={p.due}>
          read
        </Key>
      ) : null}
      <Key onClick={p.onCut} name="Space" lead={!p.due}>
        {p.paused ? "cut on" : "cut"}
      </Key>
      <Key onClick={p.onTakeBack} name="⌫">
        take back
      </Key>
      <Key onClick={p.onNote} name="N">
        note
      </Key>
      <Key onClick={p.onBreak} name="B">
        break
      </Key>
      <Key onClick={p.onLog} name="L">
        list
      </Key>
      <Key onClick={p.onSpoiled} name="X">
        spoiled
      </Key>
      <Key onClick={p.onStop} name="S">
        stop
      </Key>
    </>
  );
}

function Key({
  onClick,
  name,
  lead = false,
  children,
}: {
  onClick: () => void;
  name: string;
  lead?: boolean;
  children: ReactNode;
}) {
  return (
    <button
      type="button"
      onClick={onClick}
      className={`flex min-h-16 min-w-16 cursor-pointer flex-col items-center justify-center gap-1 rounded-edge border-[1.5px] px-2 font-semibold ${lead ? "border-next text-next max-bench:grow-[3]" : "border-line max-bench:grow"}`}
    >
      {children}
      <Kbd>{name}</Kbd>
    </button>
  );
}
