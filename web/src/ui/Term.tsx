import { Popover } from "radix-ui";
import { Link } from "react-router";
import { GUIDE_INDEX } from "../domain/guideIndex.gen";
import type { TermName } from "../domain/terms";
import { TERMS } from "../domain/words.gen";

export type { TermName };

/** A `?` beside a term: pressed, it says in a sentence what the term means. */
export function Term({ of }: { of: TermName }) {
  return (
    <Popover.Root>
      <Popover.Trigger asChild>
        <button
          type="button"
          aria-label={`What is “${of}”?`}
          className={`-my-1 ml-1 inline-grid size-6 cursor-pointer place-items-center rounded-full border
            border-line text-note font-semibold text-ink-2`}
        >
          ?
        </button>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          sideOffset={4}
          collisionPadding={12}
          className={`z-50 max-w-80 rounded-edge border-[1.5px] border-ink bg-paper px-3 py-2
            text-note shadow-[4px_4px_0_var(--line)]`}
        >
          <b>{of}</b>: {TERMS[of]}{" "}
          <Link className="underline underline-offset-4" to={`/guide/${pageOf(of)}`}>
            In the guide
          </Link>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

/** The page that explains a term. */
const pageOf = (term: TermName): string =>
  GUIDE_INDEX.find(({ terms }) => (terms as readonly string[]).includes(term))?.slug ?? "terms";
