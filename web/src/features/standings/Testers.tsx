import type { Schemas } from "../../api/client";
import { Fold } from "../../ui/Fold";
import { Note } from "../../ui/Note";
import { Table } from "../../ui/Table";

/** What each tester's own trials say, beside the common standings. */
export function Testers({ board }: { board: Schemas["BoardOut"] }) {
  const { testers, rungs, repeats, consistency, apart } = board;
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
      {apart.map((line) => (
        <p key={line} className="font-medium text-rust">
          {line}
        </p>
      ))}
      {consistency.length ? (
        <Fold title="Do the testers agree, blade by blade?">
          <Note>
            h: how far a tester's mean lies from the others', in their deviations. k: how much a
            tester's edges scatter beside all. Cochran: the share of the largest variance. Of 100
            sound figures 5 are stragglers and 1 an outlier. ISO 5725-2.
          </Note>
          <Table
            scrolls="Consistency of testers"
            heads={["Blade", "Tester", "Runs", "h", "k", "Cochran"]}
          >
            {consistency.map((cell) => (
              <tr key={`${cell.code} ${cell.name}`} className="border-b border-line">
                <th scope="row" className="py-1 pr-4 text-left font-semibold">
                  {cell.code}
                </th>
                <td className="py-1 pr-4">{cell.name}</td>
                <td className="py-1 pr-4">{cell.runs}</td>
                <td className="py-1 pr-4">{cell.h}</td>
                <td className="py-1 pr-4">{cell.k}</td>
                <td className="py-1 pr-4">{cell.cochran}</td>
              </tr>
            ))}
          </Table>
        </Fold>
      ) : null}
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
