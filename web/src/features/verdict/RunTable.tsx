import type { Schemas } from "../../api/client";
import { gf } from "../../domain/format";
import { Mark } from "../../ui/Mark";
import { Table } from "../../ui/Table";

interface Props {
  data: Schemas["AnswerOut"];
  highlighted: string | null;
  onHighlight: (blade: string | null) => void;
}

/** The same answer in numbers: every run, what the curve says and what the plain rule says. */
export function RunTable({ data, highlighted, onHighlight }: Props) {
  const cell = "border-b border-line px-3 py-2 text-left align-top";
  return (
    <div className="mt-3">
      <Table
        heads={[
          "blade",
          "edge",
          "start, gf",
          "end, gf",
          "change on the start",
          ...data.stages.map((s) => `this edge, to ${s}`),
          "by the stop rule",
          "readings",
        ]}
        cell="px-3 py-2"
        scrolls="Runs and their lives"
      >
        {data.runs.map((r) => (
          <tr
            key={r.run.id}
            className={highlighted === r.blade ? "bg-sheet" : ""}
            onPointerEnter={() => onHighlight(r.blade)}
            onPointerLeave={() => onHighlight(null)}
          >
            <th scope="row" className={`${cell} font-bold`}>
              <span className="flex items-center gap-2 whitespace-nowrap">
                <Mark mark={r.mark} size={16} />
                {r.blade}
              </span>
              {r.run.status === "stopped" ? null : (
                <span className="block text-note font-normal text-ink-2">not ended</span>
              )}
              {r.warnings.map((w) => (
                <span key={w} className="block max-w-56 text-note font-normal text-rust">
                  {w}
                </span>
              ))}
            </th>
            <td className={cell}>{r.run.edge}</td>
            <td className={cell}>{r.start_gf === null ? "" : gf(r.start_gf)}</td>
            <td className={cell}>{r.end_gf === null ? "" : gf(r.end_gf)}</td>
            <td className={cell}>
              {r.change_percent === null
                ? ""
                : `${r.change_percent > 0 ? "+" : ""}${r.change_percent.toFixed(0)} %`}
            </td>
            {data.stages.map((s) => (
              <td key={s} className={`${cell} min-w-28`}>
                {r.lives[s]?.words ?? ""}
              </td>
            ))}
            <td className={cell}>
              {r.lives[data.stage]?.by_rule.value ?? "none"}
              <span className="block text-note text-ink-2">
                {r.lives[data.stage]?.by_rule.rule}
              </span>
            </td>
            <td className={`${cell} cond text-note`}>
              {r.readings
                .map((x) => `${x.count}: ${gf(x.force_gf)}${x.struck ? " (struck)" : ""}`)
                .join(", ")}
              {r.controls.map((control) => (
                <span key={control} className="block text-ink-2">
                  {control}
                </span>
              ))}
            </td>
          </tr>
        ))}
      </Table>
    </div>
  );
}
