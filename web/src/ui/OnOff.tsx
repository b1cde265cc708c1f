import { Switch } from "radix-ui";
import { type ReactNode, useId } from "react";

/** Something that is on or off, at once. */
export function OnOff({
  label,
  on,
  onTurn,
}: {
  label: ReactNode;
  on: boolean;
  onTurn: (on: boolean) => void;
}) {
  const id = useId();
  return (
    <span className="flex min-h-11 items-center gap-2">
      <Switch.Root
        id={id}
        checked={on}
        onCheckedChange={onTurn}
        className={`h-6 w-11 shrink-0 cursor-pointer rounded-full border-[1.5px] border-ink
          bg-sheet px-0.5 data-[state=checked]:bg-next`}
      >
        <Switch.Thumb
          className={`block size-4 rounded-full bg-ink transition-transform
          data-[state=checked]:translate-x-5 data-[state=checked]:bg-paper`}
        />
      </Switch.Root>
      <label htmlFor={id} className="cursor-pointer">
        {label}
      </label>
    </span>
  );
}
