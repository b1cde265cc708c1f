import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { gradesAlikeQuery } from "../../api/queries";
import { Page } from "../../ui/Page";
import { Failed, Waiting } from "../../ui/State";

/** Which grades of the library no analyser in air separates, and what would. */
export function GradesAlike() {
  const found = useQuery(gradesAlikeQuery);
  if (found.isPending) return <Waiting what="the grades" />;
  if (found.isError) return <Failed error={found.error} onRetry={() => void found.refetch()} />;
  const { groups, grades } = found.data;
  return (
    <Page>
      <h1 className="answer max-w-4xl">
        Of {grades} grades, {groups.flatMap((g) => g.grades).length} have a twin that XRF in air
        cannot separate from them.
      </h1>
      <p className="mt-2 max-w-3xl text-ink-2">
        They differ only in what it cannot see. More shots do not help: a claim of one of them stays
        undecidable.
      </p>
      <ul className="mt-5">
        {groups.map((group) => (
          <li
            key={group.grades[0]}
            className="grid gap-x-8 border-b border-line py-2 bench:grid-cols-[1fr_1fr]"
          >
            <span>
              {group.grades.map((name, i) => (
                <span key={name}>
                  {i ? ", " : ""}
                  <Link
                    className="font-semibold underline decoration-line underline-offset-4"
                    to={`/grades/${encodeURIComponent(name)}`}
                  >
                    {name}
                  </Link>
                </span>
              ))}
            </span>
            <span className="text-ink-2">separated by {group.separated_by}</span>
          </li>
        ))}
      </ul>
    </Page>
  );
}
