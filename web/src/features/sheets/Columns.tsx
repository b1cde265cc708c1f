import type { Schemas } from "../../api/client";
import { labelOf } from "../../domain/words";
import { Note } from "../../ui/Note";
import { TextButton } from "../../ui/TextButton";
import { FirstRows } from "./FirstRows";
import { ReadingChoices } from "./ReadingChoices";

type Seen = Schemas["SheetPreviewOut"];
type Reading = Schemas["SheetReadingBody"];

/** What each column is: guessed, and changed by hand; with the first rows beneath. */
export function Columns({ seen, onReading }: { seen: Seen; onReading: (to: Reading) => void }) {
  const set = (part: Partial<Reading>) => onReading({ ...seen.reading, ...part });
  return (
    <section aria-label="Columns" className="mt-6">
      <ReadingChoices seen={seen} set={set} />
      <Changes seen={seen} />
      {seen.remembered.length ? (
        <p className="mt-2 flex flex-wrap items-center gap-3 text-note">
          A sheet with these heads was imported before:
          {seen.remembered.map((each) => (
            <TextButton
              key={each.name}
              className="font-semibold"
              onClick={() => onReading(each.reading)}
            >
              read it as “{each.name}”
            </TextButton>
          ))}
        </p>
      ) : null}
      {seen.notes.map((note) => (
        <Note key={note} className="mt-1">
          {note}
        </Note>
      ))}
      <FirstRows seen={seen} set={set} />
    </section>
  );
}

/** Every guess that changes a value, before and after; what it rests on is changed beside it. */
function Changes({ seen }: { seen: Seen }) {
  if (seen.changes.length === 0) return null;
  return (
    <section aria-label="Values that change" className="mt-3 border-l-4 border-next pl-3">
      <h2 className="font-semibold">Values that change when they are read</h2>
      <ul>
        {seen.changes.map((change) => (
          <li key={change.place}>
            {seen.heads[change.place] || `column ${change.place + 1}`}: <b>{change.before}</b>{" "}
            becomes <b>{change.after}</b> ({labelOf("sheetChanges", change.why)})
          </li>
        ))}
      </ul>
    </section>
  );
}
