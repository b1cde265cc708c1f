import { RadioGroup } from "radix-ui";
import { type ReactNode, useId } from "react";

/** One of a few ways that are all in sight; arrows move among them. */
export function OneOf<T extends string>({
  says,
  value,
  onPick,
  ways,
}: {
  says: string;
  value: T;
  onPick: (value: T) => void;
  ways: ReadonlyArray<readonly [value: T, label: ReactNode]>;
}) {
  const id = useId();
  return (
    <RadioGroup.Root
      aria-label={says}
      value={value}
      onValueChange={(picked) => onPick(picked as T)}
      className="flex flex-col gap-1"
    >
      {ways.map(([each, label]) => (
        <span key={each} className="flex min-h-11 items-center gap-3">
          <RadioGroup.Item
            id={`${id}-${each}`}
            value={each}
            className={`grid size-5 shrink-0 cursor-pointer place-items-center rounded-full
              border-[1.5px] border-ink bg-sheet`}
          >
            <RadioGroup.Indicator className="size-2.5 rounded-full bg-next" />
          </RadioGroup.Item>
          <label htmlFor={`${id}-${each}`} className="cursor-pointer">
            {label}
          </label>
        </span>
      ))}
    </RadioGroup.Root>
  );
}
