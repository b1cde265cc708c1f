import { useQuery } from "@tanstack/react-query";
import { soakGradesQuery } from "../../api/queries";
import { useKeys } from "../../app/keys";
import { Kbd } from "../../ui/Kbd";
import { Note } from "../../ui/Note";
import { Section } from "../../ui/Section";

/** The grades of ISO 10289, a key each. */
export function Grades({ busy, onGrade }: { busy: boolean; onGrade: (grade: number) => void }) {
  const grades = useQuery(soakGradesQuery);
  const all = grades.data ?? [];
  useKeys(
    all.map((each) => ({
      key: each.grade === 10 ? "c" : String(each.grade),
      does: `Grade ${each.grade}: ${each.looks_like}`,
      run: () => (busy ? undefined : onGrade(each.grade)),
    })),
  );
  return (
    <Section title="Rusted share of this side">
      <Note>
        Grades of ISO 10289, made for coatings. One key saves the inspection and opens the next.
      </Note>
      <ul className="mt-2">
        {all.map((each) => (
          <li key={each.grade}>
            <button
              type="button"
              disabled={busy}
              onClick={() => onGrade(each.grade)}
              className="grid min-h-11 w-full cursor-pointer grid-cols-[3rem_3.5rem_1fr_auto]
                items-center gap-3 border-t border-line text-left hover:bg-kraft/40"
            >
              <span>
                <Kbd>{each.grade === 10 ? "c" : each.grade}</Kbd>
              </span>
              <span className="font-semibold">{each.grade}</span>
              <span>{each.looks_like}</span>
              <span className="text-note text-ink-2">
                {each.grade === 10 ? "0" : `${each.above_percent} to ${each.up_to_percent}`} %
              </span>
            </button>
          </li>
        ))}
      </ul>
    </Section>
  );
}
