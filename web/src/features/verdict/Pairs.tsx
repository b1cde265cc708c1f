import { Fragment, useState } from "react";
import type { Schemas } from "../../api/client";
import { plural } from "../../domain/format";
import { Mark } from "../../ui/Mark";
import { Note } from "../../ui/Note";
import { Section } from "../../ui/Section";
import { Table, unseen } from "../../ui/Table";
import { TextButton } from "../../ui/TextButton";

interface Props {
  found: Pick<Schemas["StageAnswerOut"], "stage" | "comparisons" | "shared_reasons" | "reasons">;
  blades: Schemas["AnswerOut"]["blades"];
  highlighted: string | null;
  onHighlight: (blade: string | null) => void;
}
type Pair = Schemas["ComparisonOut"];

const MOST_EDGES = 100;
const CELL = "border-b border-line py-1.5 pr-4 text-left align-top font-normal";

/** Each pair judged, a row each; its sentence on demand, a reason that several share once. */
export function Pairs({ found, blades, highlighted, onHighlight }: Props) {
  const { comparisons: pairs, shared_reasons: shared, reasons, stage } = found;
  const [open, setOpen] = useState<string | null>(null);
  if (pairs.length === 0) return null;
  const markFor = (code: string) => blades.find((b) => b.code === code)?.mark ?? 0;
  return (
    <Section title={`Pairs, to ${stage}`} ruled>
      {shared.length ? <Note>For every pair: {shared.join("; ")}.</Note> : null}
      <Table
        heads={["pair", "longer by", "95 % interval", "verdict", unseen("sentence")]}
        cell="py-1.5 pr-4"
        scrolls={`Table of pairs, to ${stage}`}
      >
        {pairs.map((pair) => {
          const key = `${pair.a}-${pair.b}`;
          const isLit = highlighted === pair.a || highlighted === pair.b;
          return (
            <Fragment key={key}>
              <tr
                className={isLit ? "bg-sheet" : ""}
                onPointerEnter={() => onHighlight(pair.b)}
                onPointerLeave={() => onHighlight(null)}
              >
                <th scope="row" className={`${CELL} whitespace-nowrap`}>
                  <Names pair={pair} markFor={markFor} />
                </th>
                <td className={`${CELL} font-semibold whitespace-nowrap`}>{pair.size}</td>
                <td className={`${CELL} whitespace-nowrap`}>{pair.interval}</td>
                <td className={CELL}>
                  <span className={pair.verdict === "confounded" ? "text-rust" : ""}>
                    {pair.tag}
                  </span>
                  {pair.reason_numbers.map((n) => (
                    <sup key={n} className="ml-1 text-ink-2">
                      {n}
                    </sup>
                  ))}
                </td>
                <td className={`${CELL} pr-0 text-right`}>
                  <TextButton
                    aria-expanded={open === key}
                    small
                    onClick={() => setOpen(open === key ? null : key)}
                  >
                    {open === key ? "less" : "more"}
                  </TextButton>
                </td>
              </tr>
              {open === key ? (
                <tr data-more="">
                  <td colSpan={5} className={`${CELL} bg-sheet pl-3`}>
                    <Told pair={pair} />
                  </td>
                </tr>
              ) : null}
            </Fragment>
          );
        })}
      </Table>
      {reasons.length ? (
        <ol className="mt-2 text-note text-ink-2">
          {reasons.map((reason, at) => (
            <li key={reason}>
              <sup>{at + 1}</sup> {reason.charAt(0).toUpperCase()}
              {reason.slice(1)}.
            </li>
          ))}
        </ol>
      ) : null}
    </Section>
  );
}

function Names({ pair, markFor }: { pair: Pair; markFor: (code: string) => number }) {
  return (
    <span className="flex items-center gap-2">
      {pair.order.map((code, at) => (
        <Fragment key={code}>
          {at ? <span className="text-ink-2">over</span> : null}
          <Mark mark={markFor(code)} size={16} />
          {code}
        </Fragment>
      ))}
    </span>
  );
}

/** One pair in a sentence, what it may speak of, and what would decide it. */
function Told({ pair }: { pair: Pair }) {
  return (
    <p>
      {pair.words} Holds for {pair.scope}.
      {pair.edges_to_settle ? ` ${settles(pair.edges_to_settle)}` : ""}
    </p>
  );
}

function settles(edges: number): string {
  const more = edges >= MOST_EDGES ? "100 or more edges" : plural(edges, "more edge");
  return `About ${more} a blade would decide it.`;
}
