import { type KeyboardEvent, useState } from "react";

export type Span = readonly [from: number, to: number];
export interface ChartView {
  /** Names that are hidden. */
  readonly hidden: ReadonlySet<string>;
  /** The part of the long axis that is shown. */
  readonly span: Span;
}

const CLOSEST = 1 / 64;
const ALL: Span = [0, 1];

/** A part after a step nearer to its middle, or back out; parts are shares of the whole. */
export function zoomed([from, to]: Span, by: number): Span {
  const length = Math.min(Math.max((to - from) * by, CLOSEST), 1);
  return inside((from + to) / 2 - length / 2, length);
}

/** A part moved by a share of itself, inside the whole. */
export const moved = ([from, to]: Span, by: number): Span =>
  inside(from + (to - from) * by, to - from);

function inside(from: number, length: number): Span {
  const start = Math.min(Math.max(from, 0), 1 - length);
  return [start, start + length];
}

const STEPS: readonly string[] = ["+", "=", "-", "ArrowLeft", "ArrowRight", "0"];

/** The part that is shown after a key. */
function stepped(key: string, part: Span): Span {
  if (key === "+" || key === "=") return zoomed(part, 0.5);
  if (key === "-") return zoomed(part, 2);
  if (key === "ArrowLeft") return moved(part, -0.25);
  if (key === "ArrowRight") return moved(part, 0.25);
  return ALL;
}

/** What of a chart is hidden, and which part of it is shown; the keys + − ← → 0 change the part. */
export function useChartView(names: readonly string[], whole: Span = ALL) {
  const [hidden, setHidden] = useState<ReadonlySet<string>>(new Set());
  const [part, setPart] = useState<Span>(ALL);
  const [least, most] = whole;
  const at = (share: number) => least + share * (most - least);
  const step = (key: string) => setPart((now) => stepped(key, now));
  return {
    view: { hidden, span: [at(part[0]), at(part[1])] } satisfies ChartView,
    isPart: part[1] - part[0] < 1,
    step,
    onKeyDown: (event: KeyboardEvent) => {
      if (event.target !== event.currentTarget || !STEPS.includes(event.key)) return;
      event.preventDefault();
      event.stopPropagation();
      step(event.key);
    },
    toggle: (name: string) => {
      const next = new Set(hidden);
      if (!next.delete(name)) next.add(name);
      setHidden(next.size < names.length ? next : new Set());
    },
    only: (name: string) => {
      const isAlone = hidden.size === names.length - 1 && !hidden.has(name);
      setHidden(new Set(isAlone ? [] : names.filter((each) => each !== name)));
    },
  };
}
