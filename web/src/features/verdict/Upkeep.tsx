import type { Schemas } from "../../api/client";
import { counted } from "../../domain/format";
import { Mark } from "../../ui/Mark";
import { Section } from "../../ui/Section";
import { Table } from "../../ui/Table";

type Kept = Schemas["UpkeepOut"];
const percent = (share: number) => `${Math.round(100 * share)} %`;

/**
 * What a blade asks for after the cutting: does the strop, or the same light sharpening, still
 * bring it back.
 */
export function Upkeep({ upkeep, unit }: { upkeep: readonly Kept[]; unit: string }) {
  if (upkeep.length === 0) return null;
  return (
    <Section title="Sharpening and stropping" className="mt-8">
      <div className="mt-2 grid gap-x-12 gap-y-6 bench:grid-cols-2">
        {upkeep.map((kept) => (
          <article key={kept.blade}>
            <h3 className="flex items-center gap-2 font-bold">
              <Mark mark={kept.mark} size={18} />
              {kept.blade}
            </h3>
            {kept.rounds.length ? <Rounds kept={kept} unit={unit} /> : null}
            {kept.strops.length + kept.abilities.length ? <Strops kept={kept} /> : null}
          </article>
        ))}
      </div>
    </Section>
  );
}

const CELL = "border-b border-line py-1 pr-4 text-left font-normal";

function Rounds({ kept, unit }: { kept: Kept; unit: string }) {
  return (
    <>
      <p className={`mt-1 ${kept.no_longer ? "font-semibold text-rust" : ""}`}>
        {sentence(kept.restoring)}
      </p>
      <Table
        scrolls="Strop-backs"
        heads={["round", "start, gf", `life, ${unit}`, "strokes a side", "minutes"]}
        cell="py-1 pr-4"
        className="mt-2 w-full"
      >
        {kept.rounds.map((r) => (
          <tr key={r.number}>
            <th className={CELL}>{r.number}</th>
            <td className={CELL}>{r.start_gf === null ? "" : Math.round(r.start_gf)}</td>
            <td className={`${CELL} font-bold`}>
              {r.life === null ? "not lost" : counted(Math.round(10 * r.life) / 10)}
            </td>
            <td className={CELL}>{r.strokes === null ? "" : counted(r.strokes)}</td>
            <td className={CELL}>{r.minutes === null ? "" : counted(r.minutes)}</td>
          </tr>
        ))}
      </Table>
    </>
  );
}

function Strops({ kept }: { kept: Kept }) {
  return (
    <>
      <ul className="mt-1">
        {kept.strops.map((s) => (
          <li key={`${s.edge} ${s.cutting} ${s.strokes}`}>
            Edge {s.edge}
            {s.cutting > 1 ? `, cut ${s.cutting} times` : ""}: {counted(s.strokes)} strokes on the
            strop, {Math.round(s.end_gf)} to {Math.round(s.after_gf)} gf
            {s.share === null || s.low === null || s.high === null ? (
              "; too little was lost to speak of a share"
            ) : (
              <>
                ; <b>{percent(s.share)}</b> of the loss is back ({percent(s.low)} to{" "}
                {percent(s.high)})
              </>
            )}
          </li>
        ))}
        {kept.abilities.map((words) => (
          <li key={words}>{words}.</li>
        ))}
      </ul>
      <p className="mt-1 text-ink-2">{sentence(kept.stones)}</p>
    </>
  );
}

const sentence = (text: string) => (text ? `${text.charAt(0).toUpperCase()}${text.slice(1)}.` : "");
