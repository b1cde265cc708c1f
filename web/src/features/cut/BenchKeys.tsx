import type { ReactNode, RefObject } from "react";
import { FORCE } from "../../domain/checks";
import { Kbd } from "../../ui/Kbd";
import type { KeyChoice } from "./keyChoice";
import { LookKeys } from "./LookKeys";
import type { Hand } from "./useHand";

interface Props {
  field: RefObject<HTMLInputElement | null>;
  hand: Hand;
  keys: KeyChoice;
  due: boolean;
  isVirtual: boolean;
  /** Counted by length: whole pieces have a key of their own. */
  byLength: boolean;
  paused: boolean;
  onBreak: () => void;
  onSpoiled: () => void;
  onVirtual: () => void;
  onLog: () => void;
  /** Where blades take turns within one piece of board. */
  onOther: (() => void) | null;
}

/** What a thumb or a key can do; every target at least 64 px. */
export function BenchKeys(p: Props) {
  const { hand } = p;
  return (
    <div className="flex flex-1 flex-wrap items-stretch justify-end gap-1.5">
      {hand.row.is_judged ? (
        <LookKeys row={hand.row} due={p.due} keys={p.keys} onSay={hand.say} />
      ) : (
        <ReadingField {...p} />
      )}
      {hand.seeing === null ? <Steady {...p} /> : null}
    </div>
  );
}

/** A reading by its digits; several at once with a stroke between them. */
export function ReadingField({ field, hand, due }: Pick<Props, "field" | "hand" | "due">) {
  const row = hand.stropped ? FORCE : hand.row;
  const label =
    row.key === FORCE.key ? "Reading in gf" : row.unit ? `${row.label} in ${row.unit}` : row.label;
  return (
    <form
      className={`flex items-stretch rounded-edge border-[1.5px]
        ${due ? "border-next" : "border-line"} max-bench:w-full`}
      onSubmit={(e) => {
        e.preventDefault();
        hand.read();
      }}
    >
      <input
        ref={field}
        value={hand.typed}
        onChange={(e) => hand.type(e.target.value)}
        inputMode="decimal"
        enterKeyHint="done"
        autoComplete="off"
        aria-label={label}
        placeholder="reading"
        className={`h-16 w-26 min-w-0 bg-transparent px-3 text-[1.6rem] font-bold
          placeholder:text-lead placeholder:font-normal placeholder:text-ink-2 max-bench:flex-1`}
      />
      <button
        type="submit"
        className={`min-h-16 cursor-pointer px-3 font-semibold
          ${due ? "bg-next text-on-next" : "text-ink-2"}`}
      >
        {row.unit || row.label} <Kbd>Enter</Kbd>
      </button>
    </form>
  );
}

function Steady(p: Props) {
  const { hand } = p;
  const letter = (id: string) => (p.keys.lettersOn ? (p.keys.letters[id] ?? "").toUpperCase() : "");
  return (
    <>
      {p.isVirtual && hand.row.key === FORCE.key ? (
        <Key onClick={p.onVirtual} name={letter("read")} lead={p.due}>
          read
        </Key>
      ) : null}
      <Key onClick={hand.cut} name={p.keys.pedal ? "pedal" : "Space"} lead={!p.due}>
        {p.paused ? "cut on" : "cut"}
      </Key>
      {p.byLength ? (
        <Key onClick={hand.pieces} name={letter("pieces")}>
          {/^\d+$/.test(hand.typed) ? `${hand.typed} pieces` : "5 pieces"}
        </Key>
      ) : null}
      {p.onOther ? (
        <Key onClick={p.onOther} name={letter("other")}>
          other blade
        </Key>
      ) : null}
      <Key onClick={hand.takeBack} name="⌫">
        undo
      </Key>
      <Key onClick={() => hand.setAsk("note")} name={letter("note")}>
        note
      </Key>
      <Key onClick={p.onBreak} name={letter("break")}>
        break
      </Key>
      <Key onClick={p.onLog} name={letter("list")}>
        list
      </Key>
      <Key onClick={p.onSpoiled} name={letter("spoiled")}>
        spoiled
      </Key>
      <Key onClick={() => hand.setAsk("stop")} name={letter("stop")}>
        stop
      </Key>
    </>
  );
}

export function Key({
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
      className={`flex min-h-16 min-w-16 cursor-pointer flex-col items-center justify-center gap-1
        rounded-edge border-[1.5px] px-2 font-semibold
        ${lead ? "border-next text-next max-bench:grow-[3]" : "border-line max-bench:grow"}`}
    >
      {children}
      {name ? <Kbd>{name}</Kbd> : null}
    </button>
  );
}
