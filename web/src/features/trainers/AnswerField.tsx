import { type FormEvent, useEffect, useRef, useState } from "react";
import type { Round } from "../../api/trainers";
import { Button } from "../../ui/Button";
import { Kbd } from "../../ui/Kbd";
import { Notice } from "../../ui/Notice";

/** Where a round is answered: one key where it has options, else a number and Enter. */
export function AnswerField({
  round,
  error,
  isJudging,
  onAnswer,
}: {
  round: Round;
  error: string | undefined;
  isJudging: boolean;
  onAnswer: (answer: string) => void;
}) {
  const [typed, setTyped] = useState("");
  const input = useRef<HTMLInputElement>(null);
  useEffect(() => {
    input.current?.focus({ preventScroll: true });
  }, []);
  const keys = round.options.map((option) => option.key);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (typed.trim()) onAnswer(typed);
  };
  const type = (text: string) => {
    setTyped(text);
    const key = text.trim().toLowerCase();
    if (keys.includes(key) && !isJudging) onAnswer(key);
  };
  return (
    <form onSubmit={submit} className="mt-4" noValidate>
      <label className="block text-lead font-semibold" htmlFor="trainer-answer">
        {round.asks}
      </label>
      {round.options.length ? (
        <ul className="mt-2 flex flex-wrap gap-3">
          {round.options.map((option) => (
            <li key={option.key}>
              <Button disabled={isJudging} onClick={() => onAnswer(option.key)}>
                <Kbd>{option.key}</Kbd> {option.says}
              </Button>
            </li>
          ))}
        </ul>
      ) : null}
      <div className="mt-2 flex items-center gap-3">
        <input
          id="trainer-answer"
          ref={input}
          value={typed}
          onChange={(event) => type(event.target.value)}
          inputMode={round.options.length ? undefined : "decimal"}
          autoComplete="off"
          placeholder={round.options.length ? "key" : undefined}
          aria-invalid={Boolean(error)}
          className="min-h-12 w-28 rounded-edge border-[1.5px] border-ink bg-sheet px-3 text-lead"
        />
        {round.options.length ? null : (
          <Button kind="next" type="submit" disabled={isJudging || !typed.trim()}>
            Answer
          </Button>
        )}
        <Notice says={error} />
      </div>
    </form>
  );
}
