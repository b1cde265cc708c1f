import { ToggleGroup } from "radix-ui";
import type { ReactNode } from "react";

/** Views or things of which exactly one is shown; arrows move among them. */
export function Toggles<T extends string>({
  says,
  value,
  onPick,
  choices,
  small = false,
}: {
  says: string;
  value: T | undefined;
  onPick: (value: T) => void;
  choices: ReadonlyArray<readonly [value: T, label: ReactNode]>;
  small?: boolean;
}) {
  const size = small ? "min-h-8 min-w-8 px-2" : "min-h-11 min-w-11 px-3 font-semibold";
  return (
    <ToggleGroup.Root
      type="single"
      aria-label={says}
      value={value ?? ""}
      onValueChange={(picked) => (picked ? onPick(picked as T) : undefined)}
      className="flex flex-wrap items-center gap-2"
    >
      {choices.map(([each, label]) => (
        <ToggleGroup.Item
          key={each}
          value={each}
          className={`${size} cursor-pointer rounded-edge border-[1.5px] border-line
            data-[state=on]:border-ink data-[state=on]:bg-ink data-[state=on]:text-paper`}
        >
          {label}
        </ToggleGroup.Item>
      ))}
    </ToggleGroup.Root>
  );
}
