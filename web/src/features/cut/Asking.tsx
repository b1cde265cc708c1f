/** A line to say something in, below the count and never over it. */
export function Asking({
  kind,
  words,
  setWords,
  onDone,
  onAbandon,
  onCancel,
}: {
  kind: "note" | "stop";
  words: string;
  setWords: (w: string) => void;
  onDone: () => void;
  onAbandon: () => void;
  onCancel: () => void;
}) {
  return (
    <form
      className="flex flex-1 flex-wrap items-center justify-end gap-3"
      onSubmit={(e) => {
        e.preventDefault();
        onDone();
      }}
      onKeyDown={(e) => {
        if (e.key === "Escape") onCancel();
      }}
    >
      <input
        // biome-ignore lint/a11y/noAutofocus: it was just asked for, and the keys go here
        autoFocus
        value={words}
        onChange={(e) => setWords(e.target.value)}
        aria-label={kind === "note" ? "Note" : "Why stop here?"}
        placeholder={kind === "note" ? "What was seen" : "Why stop here? (needed to abandon it)"}
        className={`min-h-16 min-w-60 flex-1 rounded-edge border-[1.5px] border-ink-2 bg-sheet
          px-4 text-lead`}
      />
      <button
        type="submit"
        className={`min-h-16 cursor-pointer rounded-edge bg-next px-6 text-lead font-semibold
          text-on-next`}
      >
        {kind === "note" ? "Save note" : "Stop the run"}
      </button>
      {kind === "stop" ? (
        <button
          type="button"
          onClick={onAbandon}
          className={`min-h-16 cursor-pointer rounded-edge border-[1.5px] border-line px-4
            font-semibold`}
        >
          Abandon run
        </button>
      ) : null}
      <button
        type="button"
        onClick={onCancel}
        className="min-h-16 cursor-pointer px-4 underline underline-offset-4"
      >
        Go on cutting
      </button>
    </form>
  );
}
