import { Checkbox } from "radix-ui";
import { type ReactNode, useId } from "react";

/** A labelled yes or no. */
export function Tick({
  label,
  checked,
  onTick,
  disabled = false,
}: {
  label: ReactNode;
  checked: boolean;
  onTick: (checked: boolean) => void;
  disabled?: boolean;
}) {
  const id = useId();
  return (
    <span className={`flex min-h-11 items-center gap-3 ${disabled ? "text-ink-2" : ""}`}>
      <Checkbox.Root
        id={id}
        checked={checked}
        disabled={disabled}
        onCheckedChange={(state) => onTick(state === true)}
        className={`size-5 shrink-0 cursor-pointer rounded-edge border-[1.5px] border-ink bg-sheet
          leading-none disabled:cursor-default disabled:border-line data-[state=checked]:bg-next
          data-[state=checked]:text-paper`}
      >
        <Checkbox.Indicator aria-hidden className="block text-center font-bold">
          ✓
        </Checkbox.Indicator>
      </Checkbox.Root>
      <label htmlFor={id} className={disabled ? "" : "cursor-pointer"}>
        {label}
      </label>
    </span>
  );
}
