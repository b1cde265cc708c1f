import type { Schemas } from "../../api/client";
import { plural } from "../../domain/format";
import { labelOf } from "../../domain/words";
import { Heading, Section } from "../../ui/Section";

type Seen = Schemas["SheetPreviewOut"];

/** What will become of each row, the faults first, by row and column. */
export function Preview({ seen }: { seen: Seen }) {
  return (
    <div className="mt-6 grid gap-x-10 gap-y-6 bench:grid-cols-[minmax(0,1fr)_minmax(0,340px)]">
      <section aria-label="Preview of the rows">
        {seen.faults.length ? (
          <>
            <Heading className="text-rust">
              {plural(seen.fault_count, "error")} to correct in the sheet, or in the choice of
              columns
            </Heading>
            <ul className="mt-1">
              {seen.faults.slice(0, 12).map((fault) => (
                <li
                  key={`${fault.line}${fault.column}${fault.message}`}
                  className="border-l-4 border-rust bg-rust-soft px-3 py-1.5"
                >
                  <b>
                    Row {fault.line}
                    {fault.column ? `, ${fault.column}` : ""}
                  </b>
                  : {fault.message}
                </li>
              ))}
            </ul>
          </>
        ) : null}
        <Heading className="mt-4">Preview of the rows</Heading>
        <ul className="mt-1">
          {seen.lines.slice(0, 30).map((line) => (
            <li
              key={`${line.row}${line.blade}${line.edge}`}
              className={`grid grid-cols-[4rem_9rem_minmax(0,1fr)_7rem] gap-x-3 border-t
                border-line py-1 ${line.status === "there" ? "text-ink-2" : ""}`}
            >
              <span className="text-note text-ink-2">row {line.row}</span>
              <span className="font-semibold">
                {line.blade || "no blade"}
                {line.edge ? `, edge ${line.edge}` : ""}
              </span>
              <span className="truncate">{line.says}</span>
              <span className={line.status === "faulty" ? "font-semibold text-rust" : ""}>
                {labelOf("sheetStatus", line.status)}
              </span>
            </li>
          ))}
        </ul>
      </section>
      <Section title="Blades">
        <ul className="mt-1">
          {seen.blades.slice(0, 40).map((blade) => (
            <li key={blade.code} className="flex gap-3 border-t border-line py-1">
              <b>{blade.code}</b>
              <span className="grow text-ink-2">{blade.steel}</span>
              <span>{labelOf("sheetBlades", blade.known)}</span>
            </li>
          ))}
        </ul>
      </Section>
    </div>
  );
}
