import { Refused } from "../api/client";

/** What is wrong with a file, by line and column: the first faults, and how many in all. */
export function Faults({ error }: { error: Error }) {
  const refused = error instanceof Refused ? error.problem : null;
  const faults = refused?.faults ?? [];
  const count = refused?.fault_count ?? faults.length;
  return (
    <div role="alert" className="border-l-4 border-rust bg-rust-soft px-4 py-3">
      <p className="font-semibold">
        {faults.length
          ? `Nothing was imported: ${count.toLocaleString("en")} to correct.`
          : error.message}
      </p>
      {count > faults.length ? (
        <p className="text-note">The first {faults.length} of them:</p>
      ) : null}
      <ul className="mt-2 flex max-h-96 flex-col gap-2 overflow-y-auto">
        {faults.map((f) => (
          <li key={`${f.file}:${f.line}:${f.column}:${f.message}`} className="text-note">
            <b>
              {f.file}, line {f.line}
              {f.column ? `, ${f.column}` : ""}
            </b>
            <br />
            {f.message}
          </li>
        ))}
      </ul>
    </div>
  );
}
