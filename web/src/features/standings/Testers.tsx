import type { Schemas } from "../../api/client";
import { Fold } from "../../ui/Fold";
import { Note } from "../../ui/Note";
import { Table } from "../../ui/Table";

/** What each tester's own trials say, beside the common standings. */
export function Testers({ board }: { board: Schemas["BoardOut"] }) {
  const { testers, rungs, repeats } = board;
  if (testers.length === 0) return null;
  const own = testers.map((tester) => ({
    name: tester.name,
    at: new Map(tester.rungs.map((rung) => [rung.arm, rung])),
  }));
  return (
    <section aria-label="Tester by tester" className="mt-6">
      <h2 className="text-lead font-bold">Tester by tester</h2>
      <ul>
        {testers.map((tester) => (
          <li key={tester.name}>
            <b>{tester.name}</b>: {tester.says}
          </li>
        ))}
      </ul>
      <Note className="mt-1">{repeats}</Note>
      <Fold title="Standings of each">
        <Table
          scrolls="Standings of each tester"
          heads={["Blade", "All testers", ...own.map((each) => each.name)]}
        >
          {rungs.map((rung) => (
            <tr key={rung.arm} className="border-b border-line align-top">
              <th scope="row" className="py-1 pr-4 text-left font-semibold">
                {rung.code}
              </th>
              <td className="py-1 pr-4">
                {rung.says}
                <span className="block text-note text-ink-2">{rung.place}</span>
              </td>
              {own.map(({ name, at }) => (
                <td key={name} className="py-1 pr-4">
                  {at.get(rung.arm)?.says ?? "not cut"}
                  <span className="block text-note text-ink-2">{at.get(rung.arm)?.place}</span>
                </td>
              ))}
            </tr>
          ))}
        </Table>
      </Fold>
    </section>
  );
}
