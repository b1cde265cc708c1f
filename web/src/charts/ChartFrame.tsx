import { type ReactNode, useRef, useState } from "react";
import { pngOf, svgOf } from "../ui/chartPicture";
import { Mark } from "../ui/Mark";
import { Note } from "../ui/Note";
import { saveAs } from "../ui/saveAs";
import { Table } from "../ui/Table";
import { TextButton } from "../ui/TextButton";
import { type ChartView, type Span, useChartView } from "./useChartView";

interface Props {
  name: string;
  /** What stands beneath it, and in its picture. */
  caption: string;
  /** What can be hidden, or shown alone. */
  series?: readonly { readonly name: string; readonly mark: number }[];
  /** The whole of its long axis, where a part of it can be shown. */
  whole?: Span;
  /** More ways to show it. */
  ways?: ReactNode;
  /** The numbers it is drawn from. */
  numbers: { readonly heads: readonly string[]; readonly rows: readonly (readonly string[])[] };
  children: (view: ChartView) => ReactNode;
}

/**
 * A chart to work with: its lines hidden or shown alone, a part of it shown nearer, its numbers as a
 * table, and the whole saved as a picture with its caption.
 */
export function ChartFrame({ name, caption, series = [], whole, ways, numbers, children }: Props) {
  const drawn = useRef<HTMLElement>(null);
  const [isTold, setTold] = useState(false);
  const names = series.map((each) => each.name);
  const { view, isPart, step, onKeyDown, toggle, only } = useChartView(names, whole);
  const saveSvg = async () => {
    if (!drawn.current) return;
    const text = await svgOf(drawn.current, caption);
    saveAs(new Blob([text], { type: "image/svg+xml" }), `${name}.svg`);
  };
  const savePng = async () => {
    if (drawn.current) saveAs(await pngOf(drawn.current, caption), `${name}.png`);
  };
  return (
    <div>
      <figure
        ref={drawn}
        tabIndex={whole ? 0 : undefined}
        aria-label={name}
        onKeyDown={whole ? onKeyDown : undefined}
      >
        {children(view)}
        <figcaption>
          <Note className="mt-1">{caption}</Note>
        </figcaption>
      </figure>
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1 print:hidden">
        {series.length > 1
          ? series.map((each) => (
              <Chip
                key={each.name}
                {...each}
                isHidden={view.hidden.has(each.name)}
                onToggle={() => toggle(each.name)}
                onOnly={() => only(each.name)}
              />
            ))
          : null}
        {ways}
        {whole ? (
          <span className="flex gap-3">
            <TextButton small title="key +" onClick={() => step("+")}>
              Nearer
            </TextButton>
            {isPart ? (
              <>
                <TextButton small title="key −" onClick={() => step("-")}>
                  Farther
                </TextButton>
                <TextButton small title="key ←" onClick={() => step("ArrowLeft")}>
                  Left
                </TextButton>
                <TextButton small title="key →" onClick={() => step("ArrowRight")}>
                  Right
                </TextButton>
                <TextButton small title="key 0" onClick={() => step("0")}>
                  Whole
                </TextButton>
              </>
            ) : null}
          </span>
        ) : null}
        <span className="flex gap-3">
          <TextButton small aria-expanded={isTold} onClick={() => setTold(!isTold)}>
            Numbers
          </TextButton>
          <TextButton small onClick={() => void saveSvg()}>
            Save SVG
          </TextButton>
          <TextButton small onClick={() => void savePng()}>
            Save PNG
          </TextButton>
        </span>
      </div>
      {isTold ? (
        <Table heads={numbers.heads} scrolls={`${name}: numbers`} className="mt-2 w-full text-note">
          {numbers.rows.map((row) => (
            <tr key={row.join("|")} className="border-b border-line">
              {row.map((cell, at) => (
                <td key={numbers.heads[at]} className="py-1 pr-4">
                  {cell}
                </td>
              ))}
            </tr>
          ))}
        </Table>
      ) : null}
    </div>
  );
}

/** A line of a chart by its name: pressed it hides or comes back, pressed with Shift it is alone. */
function Chip({
  name,
  mark,
  isHidden,
  onToggle,
  onOnly,
}: {
  name: string;
  mark: number;
  isHidden: boolean;
  onToggle: () => void;
  onOnly: () => void;
}) {
  return (
    <button
      type="button"
      aria-pressed={!isHidden}
      title={`Press to ${isHidden ? "show" : "hide"} it; with Shift to show it alone, or all again`}
      onClick={(event) => (event.shiftKey ? onOnly() : onToggle())}
      className={`flex min-h-8 cursor-pointer items-center gap-1.5 text-note
        ${isHidden ? "text-ink-2 line-through opacity-60" : "font-semibold"}`}
    >
      <Mark mark={mark} size={14} />
      {name}
    </button>
  );
}
