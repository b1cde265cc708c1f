import { useQuery } from "@tanstack/react-query";
import { Link, useParams } from "react-router";
import type { Schemas } from "../../api/client";
import { batchQuery } from "../../api/queries";
import { buttonLook } from "../../ui/Button";
import { Mark } from "../../ui/Mark";
import { Note } from "../../ui/Note";
import { Heading } from "../../ui/Section";
import { Failed, Waiting } from "../../ui/State";
import { Table } from "../../ui/Table";
import { whereabouts } from "./place";
import { VerdictWord } from "./VerdictWord";

type Out = Schemas["AssayOut"];

/** A batch on paper: every blade with its verdict, its means, and what the sheet does not show. */
export function BatchSheet() {
  const { batchId = "" } = useParams();
  const found = useQuery(batchQuery(batchId));
  if (found.isPending) return <Waiting what="the batch" />;
  if (found.isError) return <Failed error={found.error} onRetry={() => void found.refetch()} />;
  const { batch, blades, today } = found.data;
  const shared = sharedNote(blades);
  const elements = [...new Set(blades.flatMap((b) => b.elements.map((e) => e.element)))];
  return (
    <div className="mx-auto max-w-[1100px] px-4 py-6 bench:px-7 print:max-w-none print:p-0">
      <p className="flex gap-3 print:hidden">
        <button type="button" className={buttonLook("next")} onClick={() => window.print()}>
          Print
        </button>
        <Link className={buttonLook("quiet")} to="/assay">
          Back to the assay
        </Link>
      </p>
      <h1 className="answer mt-4">Assay of {batch.name}</h1>
      <p className="text-ink-2">
        {[batch.owner, whereabouts(batch), batch.analyser, batch.operator, `printed ${today}`]
          .filter(Boolean)
          .join(" · ")}
      </p>
      {batch.alloy_says ? <p className="mt-1">{batch.alloy_says}</p> : null}
      {shared ? <p className="mt-1 text-note">{shared}</p> : null}
      {blades.map((blade) => (
        <Blade key={blade.line.id} blade={blade} shared={shared} />
      ))}
      <Heading className="mt-6">Means, mass per cent</Heading>
      <Table
        heads={["blade", ...elements.map((e) => ({ key: e, name: e, look: "text-right" }))]}
        cell="px-1 py-1"
        className="w-full text-note"
        scrolls="Means"
      >
        {blades.map((blade) => (
          <tr key={blade.line.id} className="border-b border-line text-right">
            <th scope="row" className="py-1 text-left">
              {blade.line.code}
            </th>
            {elements.map((e) => (
              <td key={e} className="px-1">
                {content(blade, e)}
              </td>
            ))}
          </tr>
        ))}
      </Table>
      <Note className="mt-4">
        What this does not show: carbon, nitrogen, boron and oxygen, which no analyser in air sees;
        what lies under a coating; how a blade was hardened. A verdict is about the claim among the
        grades tried, never about what a steel is. {blades[0]?.assumption}
      </Note>
    </div>
  );
}

function Blade({ blade, shared }: { blade: Out; shared: string }) {
  const fitting = blade.candidates.filter((c) => c.is_in && c.weight >= 0.01).slice(0, 4);
  return (
    <section
      aria-label={blade.line.code}
      className="mt-3 break-inside-avoid border-t border-line pt-2"
    >
      <p className="flex items-baseline gap-3">
        <Mark mark={blade.line.mark} size={20} />
        <b className="text-lead">{blade.line.code}</b>
        <span className="text-ink-2">{blade.line.claim ? `sold as ${blade.line.claim}` : ""}</span>
        <VerdictWord verdict={blade.line.verdict} word={blade.line.word} />
      </p>
      <p>{blade.line.sentence}</p>
      <Note>
        {fitting.map((c) => `${c.grade} ${Math.round(100 * c.weight)} %`).join(", ")}
        {fitting.length ? ". " : ""}
        {blade.notes.filter((note) => note !== shared).join(" ")}
      </Note>
      <p className="text-note">{blade.settled_by.join(" ")}</p>
    </section>
  );
}

function content(blade: Out, element: string): string {
  const found = blade.elements.find((e) => e.element === element);
  if (!found) return "";
  if (found.limit_percent !== null) return `< ${found.limit_percent.toFixed(2)}`;
  return found.percent === null ? "" : found.percent.toFixed(found.percent >= 10 ? 1 : 2);
}

/** What is to be said of every blade, said once. */
function sharedNote(blades: readonly Out[]): string {
  const [first, ...others] = blades;
  return first?.notes.find((note) => others.every((b) => b.notes.includes(note))) ?? "";
}
