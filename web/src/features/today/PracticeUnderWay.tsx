import { useQuery, useQueryClient } from "@tanstack/react-query";
import { practicePage } from "../../api/folder";
import { practiceQuery } from "../../api/practice";
import { DeletePractice } from "../../parts/PracticeStrip";
import { buttonLook } from "../../ui/Button";

/** The guided practice that was left in the middle: on with it, or away with it. */
export function PracticeUnderWay() {
  const practice = useQuery(practiceQuery);
  const queries = useQueryClient();
  if (!practice.data) return null;
  const { number, of, title, path } = practice.data;
  return (
    <p className="mt-3 flex flex-wrap items-center gap-x-5">
      <span>
        Guided practice, step {number} of {of}: {title}.
      </span>
      <a className={buttonLook("quiet")} href={practicePage(path)}>
        Go on practising
      </a>
      <DeletePractice
        onDeleted={() => void queries.invalidateQueries({ queryKey: ["practice"] })}
      />
    </p>
  );
}
