import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Link, useLocation, useNavigate } from "react-router";
import { inPractice } from "../api/folder";
import { deletePractice, type Practice, practiceQuery, takePracticeStep } from "../api/practice";
import { Button, buttonLook } from "../ui/Button";
import { Notice } from "../ui/Notice";

/** The guided practice along the top of its pages: the step, why, and what to press. */
export function PracticeStrip() {
  const practice = useQuery({ ...practiceQuery, enabled: inPractice });
  if (!inPractice || practice.data === undefined) return null;
  return (
    <section
      aria-label="Guided practice"
      className="border-b-[1.5px] border-glint bg-sheet px-4 py-2 print:hidden bench:px-7"
    >
      {practice.data ? <Step practice={practice.data} /> : <NoStep />}
    </section>
  );
}

function Step({ practice }: { practice: Practice }) {
  const { pathname } = useLocation();
  const navigate = useNavigate();
  const queries = useQueryClient();
  const { kind, number, of, title, says, button, path, runs_cut } = practice;
  // which step was taken is its own: the strip may look again, and be further, before it is done
  const act = useMutation({
    mutationFn: takePracticeStep,
    onSuccess: async (next, taken) => {
      await queries.invalidateQueries();
      if (next && (taken === "start" || taken === "rest")) navigate(next.path);
    },
  });
  const isHere = pathname === path || kind === "rest";
  const [done, total] = runs_cut ?? [];
  return (
    <div className="flex flex-wrap items-center gap-x-6 gap-y-1">
      <p className="min-w-60 flex-1">
        <b className="text-glint-ink">
          Practice, step {number} of {of}. {title}.
        </b>{" "}
        {total ? `The virtual bench is cutting run ${(done ?? 0) + 1} of ${total}.` : says}
      </p>
      {button && isHere ? (
        <Button kind="next" disabled={act.isPending} onClick={() => act.mutate(kind)}>
          {button}
        </Button>
      ) : null}
      {isHere || pathname === path ? null : (
        <Link className={buttonLook("next")} to={path}>
          {kind === "count" ? "Go to the bench" : `Go to: ${title}`}
        </Link>
      )}
      <Leaving />
      <Notice says={act.error?.message} className="w-full" />
    </div>
  );
}

function NoStep() {
  return (
    <div className="flex flex-wrap items-center gap-x-6 gap-y-1">
      <p className="flex-1">
        <b className="text-glint-ink">Practice folder.</b> What stands here is simulated and counts
        nowhere else.
      </p>
      <Leaving />
    </div>
  );
}

function Leaving() {
  return (
    <p className="flex items-center gap-x-4">
      <a className={buttonLook("quiet")} href="/">
        Leave practice
      </a>
      <DeletePractice onDeleted={() => window.location.assign("/")} />
    </p>
  );
}

/** Delete the practice with all that is in it. */
export function DeletePractice({ onDeleted }: { onDeleted: () => void }) {
  const remove = useMutation({ mutationFn: deletePractice, onSuccess: onDeleted });
  return (
    <>
      <Button kind="quiet" disabled={remove.isPending} onClick={() => remove.mutate()}>
        Delete practice
      </Button>
      <Notice says={remove.error?.message} />
    </>
  );
}
