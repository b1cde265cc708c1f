import { useChange } from "../../api/changes";
import { Button } from "../../ui/Button";

interface Noted {
  id: string;
  says: string;
  struck: string;
}

interface Props<N extends Noted> {
  noted: readonly N[];
  /** What stands beneath an entry, in small print. */
  more: (each: N) => readonly (string | undefined)[];
  strike: (id: string, reason: string) => Promise<unknown>;
  /** How what an entry says is set. */
  look?: string;
}

/** What is noted of a blade, one below the other; an entry is excluded, never rewritten. */
export function NotedList<N extends Noted>({ noted, more, strike, look = "" }: Props<N>) {
  const change = useChange(({ id, reason }: { id: string; reason: string }) => strike(id, reason));
  return (
    <ul>
      {noted.map((each) => (
        <li key={each.id} className="mt-1 flex items-start justify-between gap-3">
          <span className={each.struck ? "text-ink-2 line-through" : ""}>
            <span className={look}>{each.says}</span>
            <span className="block text-note text-ink-2">
              {more(each).filter(Boolean).join(" · ")}
            </span>
          </span>
          <Button
            kind="quiet"
            onClick={() => change.mutate({ id: each.id, reason: each.struck ? "" : "was not so" })}
          >
            {each.struck ? "Include again" : "Exclude"}
          </Button>
        </li>
      ))}
    </ul>
  );
}
