import { useQuery } from "@tanstack/react-query";
import { Link, useParams } from "react-router";
import type { Schemas } from "../../api/client";
import { bladeQuery, quantitiesQuery } from "../../api/queries";
import { EdgeStrip } from "../../charts/EdgeStrip";
import { stripEdges } from "../../domain/strips";
import { labelOf } from "../../domain/words";
import { factWords } from "../../parts/FactHistory";
import { Button } from "../../ui/Button";
import { Mark } from "../../ui/Mark";
import { Heading } from "../../ui/Section";
import { Failed, Waiting } from "../../ui/State";
import { Table } from "../../ui/Table";
import { heatWords } from "./AboutBlade";

/**
 * A blade's passport: its facts with their standings and its edge history, on a page to print and
 * send along.
 */
export function Passport() {
  const { bladeId = "" } = useParams();
  const page = useQuery(bladeQuery(bladeId));
  const quantities = useQuery(quantitiesQuery);
  if (page.isPending || quantities.isPending) return <Waiting what="the passport" />;
  if (page.isError) return <Failed error={page.error} onRetry={() => void page.refetch()} />;
  if (quantities.isError)
    return <Failed error={quantities.error} onRetry={() => void quantities.refetch()} />;
  const { blade, runs } = page.data;
  const heat = blade.heat_treatment;
  const facts = quantities.data.filter((q) => q.of === "blade");
  return (
    <article className="mx-auto max-w-[820px] bg-paper px-6 py-8 print:max-w-none print:p-0">
      <p className="mb-6 flex gap-3 print:hidden">
        <Button kind="next" onClick={() => window.print()}>
          Print
        </Button>
        <Link
          className="flex min-h-11 items-center underline underline-offset-4"
          to={`/blades/${blade.id}`}
        >
          Back to {blade.code}
        </Link>
      </p>
      <header className="flex items-center gap-4 border-b-[1.5px] border-ink pb-3">
        <Mark mark={blade.mark} size={40} />
        <div>
          <h1 className="answer">{blade.code}</h1>
          <p>
            {blade.claimed_grade ? `claimed as ${blade.claimed_grade}` : "steel not named"}
            {blade.owner ? ` · ${blade.owner}` : ""}
            {blade.loan_says ? ` · ${blade.loan_says}` : ""}
          </p>
        </div>
      </header>
      <div className="py-4">
        <EdgeStrip
          mark={blade.mark}
          title={blade.code}
          edgeLengthMm={blade.edge_length_mm}
          edges={stripEdges(
            runs.map((r) => ({ ...r, arm_id: blade.arm_id })),
            blade,
          )}
          width={760}
          detail
        />
      </div>
      <Heading>Facts</Heading>
      <Table
        heads={[
          "fact",
          "value",
          "how it is known",
          { key: "when", name: "when, by what", look: "max-bench:hidden print:table-cell" },
        ]}
        cell=""
      >
        {facts.map((q) => {
          const m = blade.measurements.find((known) => known.quantity === q.name && known.in_use);
          return (
            <tr key={q.name} className="border-b border-line">
              <th scope="row" className="py-1 text-left font-normal">
                {q.label}
              </th>
              <td className="font-semibold">{factWords(m, q)}</td>
              <td>{m ? labelOf("standings", m.standing) : ""}</td>
              <td className="text-note max-bench:hidden print:table-cell">
                {[m?.on, m?.instrument].filter(Boolean).join(", ")}
              </td>
            </tr>
          );
        })}
      </Table>
      <p className="mt-2">
        Heat treatment ({labelOf("standings", heat.standing ?? "claimed")}): {heatWords(heat)}.
      </p>
      <Heading className="mt-6">Edges</Heading>
      <EdgeHistory page={page.data} />
      {blade.note ? <p className="mt-4">{blade.note}</p> : null}
    </article>
  );
}

const WIDE = "max-bench:hidden print:table-cell";
const COLUMNS = [
  ["edge", ""],
  ["made on", WIDE],
  ["regime", WIDE],
  ["angle per side, °", ""],
  ["behind the edge, mm", ""],
  ["min", WIDE],
  ["cut", ""],
  ["counts", ""],
] as const;

function EdgeHistory({ page }: { page: Schemas["BladePageOut"] }) {
  const number = (value: number | null, decimals: number) =>
    value === null ? "" : value.toFixed(decimals);
  return (
    <Table heads={COLUMNS.map(([name, look]) => ({ key: name, name, look }))} cell="pr-2">
      {page.blade.edges.map((e) => {
        const cut = page.runs.filter((r) => r.edge === e.number && !r.practice);
        const standing = page.edge_standings.find((s) => s.edge_id === e.id)?.settled;
        return (
          <tr key={e.id} className="border-b border-line align-top">
            <th scope="row" className="py-1 text-left">
              {e.number}
            </th>
            <td className={`pr-2 whitespace-nowrap ${WIDE}`}>{e.made_on}</td>
            <td className={WIDE}>{e.factory ? "the maker's own" : e.regime}</td>
            <td>{number(e.side_angle_deg, 1)}</td>
            <td>{number(e.thickness_behind_edge_mm, 2)}</td>
            <td className={WIDE}>{number(e.minutes, 0)}</td>
            <td>{cut.map((r) => `${r.count} ${r.count_unit}`).join("; ")}</td>
            <td className="text-note">{standing?.says}</td>
          </tr>
        );
      })}
    </Table>
  );
}
