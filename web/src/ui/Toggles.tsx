import { ToggleGroup } from "radix-ui";
import type { ReactNode } from "react";

/** Views or things of which exactly one is shown; arrows move among them. */
export function Toggles<T extends string>({
  says,
  value,
  onPick,
  choices,
  small = false,
  quiet = false,
}: {
  says: string;
  value: T | undefined;
  onPick: (value: T) => void;
  choices: ReadonlyArray<readonly [value: T, label: ReactNode]>;
  small?: boolean;
  /** Set like words of a line. */
  quiet?: boolean;
}) {
  const size = small ? "min-h-8 min-w-8 px-2" : "min-h-11 min-w-11 px-3 font-semibold";
  const look = quiet
    ? "min-h-8 text-note text-ink-2 underline-offset-4 data-[state=on]:font-semibold " +
      "data-[state=on]:text-ink data-[state=on]:underline"
    : `${size} rounded-edge border-[1.5px] border-line
        data-[state=on]:border-ink data-[state=on]:bg-ink data-[state=on]:text-paper`;
  return (
    <ToggleGroup.Root
      type="single"
      aria-label={says}
      value={value ?? ""}
      onValueChange={(picked) => (picked ? onPick(picked as T) : undefined)}
      className="flex flex-wrap items-center gap-2"
    >
      {choices.map(([each, label]) => (
        <ToggleGroup.Item key={each} value={each} className={`cursor-pointer ${look}`}>
          {label}
        </ToggleGroup.Item>
      ))}
    </ToggleGroup.Root>
  );
}
