import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { useChange } from "../../api/changes";
import type { Schemas } from "../../api/client";
import { putRaterError, trainersQuery } from "../../api/trainers";
import { plural } from "../../domain/format";
import { Button, buttonLook } from "../../ui/Button";
import { Note } from "../../ui/Note";
import { Notice } from "../../ui/Notice";
import { Page } from "../../ui/Page";
import { Section } from "../../ui/Section";
import { Failed, Waiting } from "../../ui/State";
import { Table } from "../../ui/Table";
import { ScoreTrail } from "./ScoreTrail";

/** Trainers for hand, eye and judgement, with what was scored so far. */
export function Trainers() {
  const found = useQuery(trainersQuery);
  if (found.isPending) return <Waiting what="the trainers" />;
  if (found.isError) return <Failed error={found.error} onRetry={() => void found.refetch()} />;
  return (
    <Page>
      <h1 className="answer max-w-3xl">Ten rounds, five minutes, the truth after each.</h1>
      <p className="mt-2 max-w-3xl text-ink-2">
        The rounds are made anew each time, and by keyboard alone. A session counts once its ten
        rounds are answered.
      </p>
      <ul className="mt-6 grid gap-x-12 gap-y-7 bench:grid-cols-3">
        {found.data.trainers.map((trainer) => (
          <Entry key={trainer.kind} trainer={trainer} />
        ))}
      </ul>
      <Eye record={found.data} />
    </Page>
  );
}

function Entry({ trainer }: { trainer: Schemas["TrainerOut"] }) {
  const { kind, name, teaches, sessions } = trainer;
  const last = sessions.at(-1);
  return (
    <li className="flex flex-col items-start gap-2 border-t-[1.5px] border-ink pt-3">
      <h2 className="text-lead font-bold">{name}</h2>
      <p>{teaches}</p>
      {last ? (
        <>
          <ScoreTrail name={name} scores={sessions.map((each) => each.right / each.of)} />
          <Note>
            {plural(sessions.length, "session")}; last: {last.says}.
          </Note>
        </>
      ) : (
        <Note>Not tried yet.</Note>
      )}
      <Link className={buttonLook("plain")} to={`/trainers/${kind}`}>
        Start ten rounds <span className="sr-only">of {name.toLowerCase()}</span>
      </Link>
    </li>
  );
}

/** What the eye does at each grade of rust, and whether soaks reckon with it. */
function Eye({ record }: { record: Schemas["TrainingRecordOut"] }) {
  const agree = useChange(putRaterError);
  return (
    <Section title="Your eye for rust" ruled>
      <p className="mt-1 max-w-3xl">{record.eye}</p>
      {record.by_grade.length ? (
        <Table
          scrolls="Bias by grade"
          className="mt-3"
          heads={["true grade", "pictures", "graded, on average"]}
        >
          {record.by_grade.map((row) => (
            <tr key={row.grade} className="border-b border-line">
              <td className="py-1 pr-6">{row.grade}</td>
              <td className="pr-6">{row.rounds}</td>
              <td>{tooGood(row.bias_points)}</td>
            </tr>
          ))}
        </Table>
      ) : null}
      <p className="mt-3 flex flex-wrap items-center gap-4">
        {record.agreed}
        {record.can_agree && !record.has_agreed ? (
          <Button disabled={agree.isPending} onClick={() => agree.mutate(true)}>
            Use my error in soaks
          </Button>
        ) : null}
        {record.has_agreed ? (
          <Button disabled={agree.isPending} onClick={() => agree.mutate(false)}>
            Use the usual error again
          </Button>
        ) : null}
        <Notice says={agree.error?.message} />
      </p>
    </Section>
  );
}

function tooGood(points: number): string {
  const size = Math.abs(points).toFixed(1);
  return size === "0.0" ? "right" : `${size} too ${points > 0 ? "good" : "bad"}`;
}
