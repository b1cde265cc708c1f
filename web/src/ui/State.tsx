import { Refused } from "../api/client";

/** While something is fetched, and when it could not be. */
export function Waiting({ what }: { what: string }) {
  return (
    <p role="status" className="px-7 py-10 text-ink-2">
      Reading {what} …
    </p>
  );
}

/** What is shown is the last answer; newer ones are on their way. */
export function WorkingOut({ left }: { left: number }) {
  if (left === 0) return null;
  return (
    <p role="status" className="mt-2 text-note text-ink-2">
      Working it out: {left === 1 ? "1 answer" : `${left} answers`} left.
    </p>
  );
}

export function Failed({ error, onRetry }: { error: Error; onRetry: () => void }) {
  return (
    <div role="alert" className="m-7 max-w-2xl border-l-4 border-rust bg-rust-soft px-5 py-4">
      <p className="font-semibold">{error.message}</p>
      {error instanceof Refused && error.problem.status === 404 ? null : (
        <button
          type="button"
          onClick={onRetry}
          className="mt-2 min-h-11 cursor-pointer font-semibold underline underline-offset-4"
        >
          Try again
        </button>
      )}
    </div>
  );
}
