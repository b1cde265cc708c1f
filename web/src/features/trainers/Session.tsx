import { useMutation, useQuery } from "@tanstack/react-query";
import { type ReactNode, useEffect, useRef, useState } from "react";
import { Link, useParams } from "react-router";
import { useChange } from "../../api/changes";
import {
  judgeAnswer,
  putTraining,
  roundQuery,
  type TrainerKind,
  trainersQuery,
} from "../../api/trainers";
import { newId } from "../../domain/ids";
import { Button, buttonLook } from "../../ui/Button";
import { Note } from "../../ui/Note";
import { Page } from "../../ui/Page";
import { Failed, Waiting } from "../../ui/State";
import { useDraft } from "../../ui/useDraft";
import { AnswerField } from "./AnswerField";
import { RoundFace } from "./RoundFace";

interface Going {
  readonly id: string;
  readonly seed: number;
  readonly answers: readonly string[];
}
const fresh = (): Going => ({
  id: newId(),
  seed: Math.floor(Math.random() * 2 ** 31),
  answers: [],
});

/** Ten rounds with one trainer; what was answered is still there after a reload. */
export function Session() {
  const kind = (useParams().kind ?? "count") as TrainerKind;
  const trainers = useQuery(trainersQuery);
  const [begun] = useState(fresh);
  const [going, setGoing, drop] = useDraft<Going>(`trainer:${kind}`, begun);
  const trainer = trainers.data?.trainers.find((each) => each.kind === kind);
  if (trainers.isPending) return <Waiting what="the trainer" />;
  if (!trainer)
    return (
      <Failed
        error={trainers.error ?? new Error("There is no such trainer.")}
        onRetry={() => void trainers.refetch()}
      />
    );
  return (
    <Page width="narrow">
      <div className="flex flex-wrap items-baseline justify-between gap-4">
        <h1 className="text-lead font-bold">{trainer.name}</h1>
        <Link className={buttonLook("quiet")} to="/trainers" onClick={drop}>
          Leave, without a score
        </Link>
      </div>
      <Rounds key={going.id} kind={kind} going={going} onGoing={setGoing} onOver={drop} />
    </Page>
  );
}

interface Props {
  kind: TrainerKind;
  going: Going;
  onGoing: (going: Going) => void;
  onOver: () => void;
}

function Rounds({ kind, going, onGoing, onOver }: Props) {
  const [number, setNumber] = useState(Math.min(going.answers.length + 1, 10));
  const [rights, setRights] = useState(0);
  const [isOver, setOver] = useState(false);
  const [wasRight, setWasRight] = useState<boolean | null>(null);
  const asked = useQuery({ ...roundQuery(kind, going.seed, Math.min(number, 10)) });
  const save = useChange((answers: readonly string[]) =>
    putTraining(going.id, { kind, seed: going.seed, answers: [...answers] }),
  );
  const judge = useMutation({
    mutationFn: (answer: string) => judgeAnswer(kind, going.seed, number, answer),
    onSuccess: (judged, answer) => {
      const answers = [...going.answers.slice(0, number - 1), answer];
      onGoing({ ...going, answers });
      setWasRight(judged.is_right);
      setRights(rights + (judged.is_right ? 1 : 0));
      if (answers.length === asked.data?.of) save.mutate(answers);
    },
  });
  const of = asked.data?.of ?? 10;
  if (save.data && isOver) return <Over kind={kind} says={save.data.made.says} onOver={onOver} />;
  if (asked.isPending) return <Waiting what="the round" />;
  if (asked.isError) return <Failed error={asked.error} onRetry={() => void asked.refetch()} />;
  const next = () => {
    judge.reset();
    setWasRight(null);
    setNumber(number + 1);
  };
  return (
    <section aria-label={`Round ${number} of ${of}`} className="mt-3">
      <Note>
        Round {number} of {of}
        {rights ? `, ${rights} right so far` : ""}
      </Note>
      <RoundFace key={number} round={asked.data} seed={going.seed} judged={judge.data ?? null}>
        {judge.data ? (
          <Truth wasRight={Boolean(wasRight)} says={judge.data.says}>
            {save.error ? <p className="text-rust">{save.error.message}</p> : null}
            {number < of ? (
              <NextButton onNext={next}>Next round</NextButton>
            ) : (
              <NextButton onNext={() => (save.data ? setOver(true) : save.mutate(going.answers))}>
                {save.error ? "Save again" : "See the score"}
              </NextButton>
            )}
          </Truth>
        ) : (
          <AnswerField
            round={asked.data}
            error={judge.error?.message}
            isJudging={judge.isPending}
            onAnswer={(answer) => judge.mutate(answer)}
          />
        )}
      </RoundFace>
    </section>
  );
}

function Truth({
  wasRight,
  says,
  children,
}: {
  wasRight: boolean;
  says: string;
  children: ReactNode;
}) {
  return (
    <div className="mt-4 flex flex-wrap items-center gap-5" role="status">
      <p className="text-lead">
        <b className={wasRight ? "text-next" : "text-rust"}>{wasRight ? "Right." : "Wrong."}</b>{" "}
        {says}
      </p>
      {children}
    </div>
  );
}

/** The next thing to press, which Enter presses. */
function NextButton({ onNext, children }: { onNext: () => void; children: ReactNode }) {
  const button = useRef<HTMLDivElement>(null);
  useEffect(() => {
    button.current?.querySelector("button")?.focus();
  }, []);
  return (
    <div ref={button}>
      <Button kind="next" onClick={onNext}>
        {children}
      </Button>
    </div>
  );
}

function Over({ kind, says, onOver }: { kind: TrainerKind; says: string; onOver: () => void }) {
  const over = useRef(onOver);
  useEffect(() => {
    over.current(); // it is saved: nothing of it waits any more
  }, []);
  return (
    <div className="mt-6">
      <p className="answer" role="status">
        {says}.
      </p>
      <div className="mt-5 flex flex-wrap gap-3">
        <NextButton onNext={() => window.location.reload()}>Ten more</NextButton>
        <Link className={buttonLook("plain")} to="/trainers">
          All trainers
        </Link>
        {kind === "rust" ? (
          <Link className={buttonLook("quiet")} to="/soak">
            Go to the soaks
          </Link>
        ) : null}
      </div>
    </div>
  );
}
