import { useQuery } from "@tanstack/react-query";
import type { Schemas } from "../../api/client";
import { soakTableQuery } from "../../api/queries";

/** Does a blade keep its place from one medium to the next? */
export function SideBySide({ soaks }: { soaks: readonly Schemas["SoakLineOut"][] }) {
  const table = useQuery({ ...soakTableQuery, enabled: soaks.length > 1 });
  if (!table.data || table.data.soaks.length < 2 || table.data.rows.length === 0) return null;
  return (
    <section
      aria-label="Rank in each medium"
      className="mt-10 border-t-[1.5px] border-ink pt-3 pb-8"
    >
      <h2 className="text-lead font-bold">Rank in each medium</h2>
      <p className="mt-1 max-w-3xl">{table.data.says}</p>
      {/* biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls is reached by keyboard */}
      <section className="mt-3 overflow-x-auto" aria-label="Places" tabIndex={0}>
        <table className="min-w-[560px] border-collapse">
          <thead>
            <tr className="text-left text-note text-ink-2">
              <th className="pr-6 pb-1 font-medium">blade</th>
              {table.data.soaks.map((soak) => (
                <th key={soak.id} className="pr-6 pb-1 font-medium">
                  {soak.name}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
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
          </tbody>
        </table>
      </section>
    </section>
  );
}
