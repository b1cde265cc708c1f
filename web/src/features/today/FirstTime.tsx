import { useMutation } from "@tanstack/react-query";
import type { ReactNode } from "react";
import { Link } from "react-router";
import { practicePage } from "../../api/folder";
import { beginPractice } from "../../api/practice";
import { Button, buttonLook } from "../../ui/Button";
import { Note } from "../../ui/Note";
import { Notice } from "../../ui/Notice";
import { OrderDrawing, TallyDrawing, WearDrawing } from "./drawings";

/** Ways to begin, each with what comes of it. */
export function FirstTime({ onNew, onResults }: { onNew: () => void; onResults: () => void }) {
  const practice = usePractice();
  return (
    <div className="pt-6">
      <h1 className="answer max-w-3xl">
        Which blade lasts? Two blades, some rope and a tester for the edge are enough to find out.
      </h1>
      <ul className="mt-8 grid gap-x-12 gap-y-8 bench:grid-cols-3">
        <Beginning
          drawing={<WearDrawing />}
          says={
            "Match two virtual blades, plan, count a dozen cuts, and read the verdict. Nothing of " +
            "it stays in your records."
          }
        >
          <Button kind="next" disabled={practice.isPending} onClick={() => practice.mutate()}>
            Try it in five minutes
          </Button>
          <Notice says={practice.error?.message} />
        </Beginning>
        <Beginning
          drawing={<TallyDrawing />}
          says={
            "A tally on paper, a spreadsheet or files of another tester give the same answer, with " +
            "what they leave open."
          }
        >
          <Button onClick={onResults}>Enter results I have</Button>
        </Beginning>
        <Beginning
          drawing={<OrderDrawing />}
          says={
            "Name the question and the blades. Kessik counts, says when to check, and how sure the " +
            "answer is."
          }
        >
          <Button onClick={onNew}>Plan a trial</Button>
        </Beginning>
      </ul>
      <Note className="mt-8">
        Not sure what to cut?{" "}
        <Link className={LINK} to="/ways">
          Find a way of testing
        </Link>{" "}
        by your question and by what is in hand. The{" "}
        <Link className={LINK} to="/guide">
          guide
        </Link>{" "}
        has a page for each job, and the{" "}
        <Link className={LINK} to="/trainers">
          trainers
        </Link>{" "}
        sharpen eye and hand.
      </Note>
    </div>
  );
}

const LINK = "underline underline-offset-4";

function Beginning({
  drawing,
  says,
  children,
}: {
  drawing: ReactNode;
  says: string;
  children: ReactNode;
}) {
  return (
    <li className="flex flex-col items-start gap-3 border-t-[1.5px] border-ink pt-4">
      {drawing}
      <p>{says}</p>
      {children}
    </li>
  );
}

/** Begin the practice, or go on with it, in its own folder. */
export function usePractice() {
  return useMutation({
    mutationFn: beginPractice,
    onSuccess: (begun) => window.location.assign(practicePage(begun?.path ?? "/")),
  });
}

/** What the guided practice is, with the way in. */
export function PracticeSheet() {
  const practice = usePractice();
  return (
    <div className="flex flex-col items-start gap-4">
      <WearDrawing />
      <p>
        Two virtual blades are matched, planned, cut and compared in the real places. It lies in a
        folder of its own: no standing, plan or package sees it, and deleting it leaves no trace. It
        can be left at any point.
      </p>
      <Button kind="next" disabled={practice.isPending} onClick={() => practice.mutate()}>
        Try it in five minutes
      </Button>
      <Notice says={practice.error?.message} />
      <Link className={buttonLook("quiet")} to="/guide">
        Read the guide instead
      </Link>
    </div>
  );
}
