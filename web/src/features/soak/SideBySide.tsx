import { useQuery } from "@tanstack/react-query";
import type { Schemas } from "../../api/client";
import { soakTableQuery } from "../../api/queries";
import { Heading } from "../../ui/Section";
import { Table } from "../../ui/Table";

/** Does a blade keep its place from one medium to the next? */
export function SideBySide({ soaks }: { soaks: readonly Schemas["SoakLineOut"][] }) {
  const table = useQuery({ ...soakTableQuery, enabled: soaks.length > 1 });
  if (!table.data || table.data.soaks.length < 2 || table.data.rows.length === 0) return null;
  return (
    <section
      aria-label="Rank in each medium"
      className="mt-10 border-t-[1.5px] border-ink pt-3 pb-8"
    >
      <Heading>Rank in each medium</Heading>
      <p className="mt-1 max-w-3xl">{table.data.says}</p>
      <Table
        heads={[
          table.data.by_steel ? "steel" : "blade",
          ...table.data.soaks.map(({ id, name }) => ({ key: id, name })),
        ]}
        cell="pr-6 pb-1"
        className="min-w-[560px]"
        scrolls="Places"
      >
        {table.data.rows.map((row) => (
          <tr key={row.blade} className="border-t border-line">
            <th className="py-2 pr-6 text-left font-semibold">{row.blade}</th>
            {row.places.map((place, i) => (
              <td key={table.data.soaks[i]?.id} className="py-2 pr-6">
                {place ? (
                  <>
                    <span className="font-semibold">{place.place_says}</span>
                    <span className="ml-2 text-note text-ink-2">{place.area}</span>
                  </>
                ) : (
                  <span className="text-note text-ink-2">not in it</span>
                )}
              </td>
            ))}
          </tr>
        ))}
      </Table>
    </section>
  );
}
