import { Select } from "radix-ui";
import { type ReactNode, useId } from "react";
import { type Around, describedBy, INPUT, Surround } from "./Surround";

/** Radix keeps the empty value for “nothing chosen”; ours may be an option like any other. */
const NONE = "–none–";
const inside = (value: string) => (value === "" ? NONE : value);
const outside = (value: string) => (value === NONE ? "" : value);

interface Picking {
  value: string | undefined;
  onPick: (value: string) => void;
  disabled?: boolean | undefined;
  children: ReactNode;
}

/**
 * A labelled choice of one among several; open it with Space or an arrow, or type its first
 * letters.
 */
export function Choice({
  label,
  unit,
  error,
  hint,
  className,
  term,
  ...picking
}: Around & Picking) {
  const id = useId();
  return (
    <Surround {...{ id, label, unit, error, hint, className, term }}>
      <Picker
        {...picking}
        id={id}
        look={`${INPUT} border-line`}
        labelledBy={`${id}-label`}
        describedBy={describedBy(id, { error, hint })}
        isWrong={Boolean(error)}
      />
    </Surround>
  );
}

/** The same without a label in sight, for a cell of a table. */
export function CellChoice({ says, ...picking }: Picking & { says: string }) {
  return (
    <Picker
      {...picking}
      says={says}
      look="min-h-11 rounded-edge border border-line bg-sheet px-2"
    />
  );
}

function Picker({
  value,
  onPick,
  disabled,
  children,
  id,
  look,
  says,
  labelledBy,
  describedBy,
  isWrong,
}: Picking & {
  id?: string;
  look: string;
  says?: string;
  labelledBy?: string;
  describedBy?: string | undefined;
  isWrong?: boolean;
}) {
  return (
    <Select.Root
      value={value === undefined ? "" : inside(value)}
      onValueChange={(picked) => onPick(outside(picked))}
      disabled={disabled ?? false}
    >
      <Select.Trigger
        id={id}
        aria-label={says}
        aria-labelledby={labelledBy ? `${labelledBy} ${id}` : undefined}
        aria-describedby={describedBy}
        aria-invalid={isWrong ?? false}
        className={`${look} flex cursor-pointer items-center justify-between gap-2 text-left
          disabled:opacity-40`}
      >
        <span className="truncate">
          <Select.Value />
        </span>
        <Select.Icon aria-hidden className="text-note">
          ▾
        </Select.Icon>
      </Select.Trigger>
      <Select.Portal>
        <Select.Content
          position="popper"
          sideOffset={4}
          collisionPadding={12}
          className={`z-40 max-h-(--radix-select-content-available-height)
            min-w-(--radix-select-trigger-width) overflow-y-auto rounded-edge border-[1.5px]
            border-ink bg-paper shadow-[4px_4px_0_var(--line)]`}
        >
          <Select.Viewport>{children}</Select.Viewport>
        </Select.Content>
      </Select.Portal>
    </Select.Root>
  );
}

/** A list of the vocabulary to choose among. */
export function Options({ of }: { of: ReadonlyArray<readonly [string, ReactNode]> }) {
  return of.map(([value, label]) => (
    <Option key={value} value={value}>
      {label}
    </Option>
  ));
}

/** One of the things to choose among. */
export function Option({ value, children }: { value: string; children: ReactNode }) {
  return (
    <Select.Item
      value={inside(value)}
      className={`flex min-h-11 max-w-[80vw] cursor-pointer items-center px-3 outline-none
        data-[highlighted]:bg-ink data-[highlighted]:text-paper data-[state=checked]:font-bold`}
    >
      <Select.ItemText>{children}</Select.ItemText>
    </Select.Item>
  );
}
