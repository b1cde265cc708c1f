import { Slider } from "radix-ui";
import { useId } from "react";

/** A labelled amount from none to most, dragged or moved by arrows. */
export function Slide({
  label,
  value,
  most,
  step = 0.5,
  says,
  disabled = false,
  onMove,
}: {
  label: string;
  value: number;
  most: number;
  step?: number;
  /** The amount in words. */
  says: string;
  disabled?: boolean;
  onMove: (value: number) => void;
}) {
  const id = useId();
  return (
    <div className={disabled ? "opacity-50" : ""}>
      <span className="flex items-baseline justify-between">
        <span id={id} className="text-note font-medium text-ink-2">
          {label}
        </span>
        <span className="text-note tabular-nums">{says}</span>
      </span>
      <Slider.Root
        value={[value]}
        max={most}
        step={step}
        disabled={disabled}
        onValueChange={([to]) => onMove(to ?? 0)}
        className="relative flex h-8 w-full cursor-pointer touch-none items-center"
      >
        <Slider.Track className="h-1 grow bg-line">
          <Slider.Range className="absolute h-1 bg-next" />
        </Slider.Track>
        <Slider.Thumb
          aria-labelledby={id}
          aria-valuetext={says}
          className="block size-5 rounded-full border-[1.5px] border-ink bg-sheet"
        />
      </Slider.Root>
    </div>
  );
}
