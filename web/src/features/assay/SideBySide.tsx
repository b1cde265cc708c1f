import { useQuery } from "@tanstack/react-query";
import { useSearchParams } from "react-router";
import type { Schemas } from "../../api/client";
import { shelfQuery, sideBySideQuery } from "../../api/queries";
import { Choice, Option } from "../../ui/Choice";
import { Mark } from "../../ui/Mark";
import { Page } from "../../ui/Page";
import { Failed, Waiting } from "../../ui/State";

type Out = Schemas["SideBySideOut"];

/** Two makers' sheets side by side: what differs, what that is held to do, and what is unequal. */
export function SideBySide() {
  const shelf = useQuery(shelfQuery);
  const [search, setSearch] = useSearchParams();
  if (shelf.isPending) return <Waiting what="the shelf" />;
  if (shelf.isError) return <Failed error={shelf.error} onRetry={() => void shelf.refetch()} />;
  const blades = shelf.data.blades.map(({ blade }) => blade).filter((b) => !b.archived_utc);
  const first = search.get("first") ?? blades[0]?.id ?? "";
  const second = search.get("second") ?? blades[1]?.id ?? "";
  const pick = (name: "first" | "second", id: string) => setSearch({ first, second, [name]: id });
  return (
    <Page>
      <h1 className="answer">Two blades and their claims, side by side</h1>
      <div className="mt-4 grid max-w-2xl grid-cols-2 gap-4">
        {(["first", "second"] as const).map((name) => (
          <Choice
            key={name}
            label={name === "first" ? "First blade" : "Second blade"}
            value={name === "first" ? first : second}
            onPick={(id) => pick(name, id)}
          >
            {blades.map((blade) => (
              <Option key={blade.id} value={blade.id}>
                {blade.code}
                {blade.claimed_grade ? `, ${blade.claimed_grade}` : ""}
              </Option>
            ))}
          </Choice>
        ))}
      </div>
      {first && second && first !== second ? <Laid first={first} second={second} /> : null}
    </Page>
  );
}

function Laid({ first, second }: { first: string; second: string }) {
  const found = useQuery(sideBySideQuery(first, second));
  if (found.isPending) return <Waiting what="the two" />;
  if (found.isError) return <Failed error={found.error} onRetry={() => void found.refetch()} />;
  const { data } = found;
  return (
    <>
      {data.warnings.length ? (
        <section
          aria-label="Unequal"
          className="mt-5 border-l-4 border-rust bg-rust-soft px-5 py-3"
        >
          <h2 className="font-bold">Heat treatments differ</h2>
          <ul className="mt-1">
            {data.warnings.map((warning) => (
              <li key={warning}>{warning}</li>
            ))}
          </ul>
          <p className="mt-2">{data.equal_comparison}</p>
        </section>
      ) : null}
      {data.standing ? <p className="mt-3 font-semibold">{data.standing}</p> : null}
      <table className="mt-5 w-full border-collapse">
        <thead>
          <tr className="border-b-[1.5px] border-ink text-left align-bottom">
            <th />
            {[data.first, data.second].map((told) => (
              <th key={told.id} scope="col" className="w-1/2 py-2 pr-6 font-normal bench:w-1/4">
                <Told told={told} />
              </th>
            ))}
            <th className="py-2 text-note font-medium text-ink-2 max-bench:hidden">
              effect of more of it
            </th>
          </tr>
        </thead>
        <tbody>
          {data.differs.map((row) => (
            <tr key={row.element} className="border-b border-line align-baseline">
              <th scope="row" className="w-12 py-1.5 text-left text-lead">
                {row.element}
              </th>
              <td>{row.first}</td>
              <td>{row.second}</td>
              <td className="text-note text-ink-2 max-bench:hidden">{row.says}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {data.differs.length === 0 ? (
        <p className="mt-3 text-ink-2">They differ in no element that the shelf knows.</p>
      ) : null}
    </>
  );
}

function Told({ told }: { told: Out["first"] }) {
  return (
    <>
      <span className="flex items-center gap-2 text-lead font-bold">
        <Mark mark={told.mark} size={22} />
        {told.code}
        <span className="font-normal text-ink-2">{told.claim ? `claimed ${told.claim}` : ""}</span>
      </span>
      <span className="block text-note">{told.hardness}</span>
      <span className="block text-note">{told.hardening}</span>
      {told.lives.map((life) => (
        <span key={life} className="block text-note text-ink-2">
          {life}
        </span>
      ))}
    </>
  );
}
