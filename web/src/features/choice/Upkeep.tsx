import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { upkeepQuery } from "../../api/choice";
import { Field } from "../../ui/Field";
import { Mark } from "../../ui/Mark";
import { Note } from "../../ui/Note";
import { Heading } from "../../ui/Section";
import { Table } from "../../ui/Table";

const HEADS = [
  "Blade",
  "Sharpenings",
  "Minutes",
  "Strokes",
  "Minutes per cut",
  "Step again",
  "Trouble",
  "Strop",
];

/** What each blade asks for: minutes, strokes, trouble, and what the strop brings back. */
export function Upkeep() {
  const [included, setIncluded] = useState("");
  const told = Number(included.replace(",", ".")) / 2;
  const toSide = included.trim() && told >= 5 && told <= 45 ? told : null;
  const rows = useQuery(upkeepQuery(toSide));
  if (!rows.data?.length) return null;
  return (
    <section aria-label="Upkeep" className="mt-8">
      <Heading>Upkeep</Heading>
      <Table
        scrolls="Upkeep of each blade"
        heads={toSide === null ? HEADS : [...HEADS, `To ${included.trim()}° included`]}
      >
        {rows.data.map((row) => (
          <tr key={row.blade_id} className="border-b border-line align-top text-note">
            <th scope="row" className="py-1 pr-4 text-left text-body">
              <span className="flex items-center gap-2 whitespace-nowrap">
                <Mark mark={row.mark} size={18} /> {row.code}
              </span>
            </th>
            <td className="py-1 pr-4">{row.sharpenings}</td>
            <td className="py-1 pr-4">{row.minutes_says}</td>
            <td className="py-1 pr-4">{row.strokes_says}</td>
            <td className="py-1 pr-4">{row.per_cut_says}</td>
            <td className="py-1 pr-4">{row.steps_again}</td>
            <td className="py-1 pr-4">{row.trouble}</td>
            <td className="py-1 pr-4">{row.strop}</td>
            {toSide === null ? null : <td className="py-1 pr-4">{row.reangling_says}</td>}
          </tr>
        ))}
      </Table>
      <Note className="mt-1">
        The first sharpening of a factory edge sets the bevel and is left out. Means with 95 %
        intervals.
      </Note>
      <Field
        className="mt-3 max-w-64"
        label="Re-angle to"
        unit="° included"
        inputMode="decimal"
        value={included}
        hint="What bringing the last edge of each blade there would take."
        onChange={(event) => setIncluded(event.target.value)}
      />
    </section>
  );
}
