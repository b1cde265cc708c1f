import type { Schemas } from "../../api/client";
import { Button } from "../../ui/Button";
import { Field } from "../../ui/Field";
import { Mark } from "../../ui/Mark";
import { Note } from "../../ui/Note";
import { type BladeLine, bladesOf, blankLine, type TrialDraft, typedEdge } from "./trialDraft";

interface Props {
  readonly draft: TrialDraft;
  readonly onDraft: (draft: TrialDraft) => void;
  readonly shelf: Schemas["ShelfOut"] | undefined;
  readonly onShelf: (code: string) => Schemas["BladeOut"] | undefined;
  readonly twice: BladeLine | undefined;
}

/** The blades of a new trial, or the one blade with the preparations that are compared on it. */
export function TrialBlades({ draft, onDraft, shelf, onShelf, twice }: Props) {
  const isOne = draft.compares === "preparations";
  const lines = bladesOf(draft);
  const change = (at: number, part: Partial<BladeLine>) =>
    onDraft({
      ...draft,
      blades: draft.blades.map((line, i) => (i === at ? { ...line, ...part } : line)),
    });
  return (
    <fieldset className="flex flex-col gap-3">
      <legend className="mb-2 font-semibold">{isOne ? "Blade" : "Blades"}</legend>
      {lines.map((line, at) => (
        <div key={line.id} className="grid grid-cols-[28px_1fr_1fr_5.5rem] items-start gap-3">
          <span className="mt-8">
            <Mark mark={onShelf(line.code)?.mark ?? (shelf?.blades.length ?? 0) + at} />
          </span>
          <Field
            label={isOne ? "Blade, code" : `Blade ${at + 1}, code`}
            value={line.code}
            onChange={(e) => change(at, { code: e.target.value })}
            error={
              twice === line ? `${line.code} is named twice; give one another code` : undefined
            }
            placeholder={String.fromCharCode(65 + at)}
            list="codes-on-the-shelf"
            hint={onShelf(line.code) ? "already on the shelf" : undefined}
          />
          <Field
            label="Steel, by its designation"
            value={line.grade}
            onChange={(e) => change(at, { grade: e.target.value })}
            placeholder="1.4034"
          />
          <Field
            label="Edge number"
            value={line.edge}
            onChange={(e) => change(at, { edge: e.target.value })}
            error={typedEdge(line.edge) === undefined ? "3, or 3+ for at least 3" : undefined}
            placeholder="3"
          />
        </div>
      ))}
      <Note>
        Edge number: how often the blade has been sharpened since new, the edge it carries now
        included. Write 3+ where it was at least three times; leave it empty where you do not know.
      </Note>
      {isOne ? (
        <Preparations draft={draft} onDraft={onDraft} />
      ) : (
        <Button
          kind="quiet"
          className="self-start px-0"
          onClick={() => onDraft({ ...draft, blades: [...draft.blades, blankLine()] })}
        >
          Add a blade
        </Button>
      )}
      <datalist id="codes-on-the-shelf">
        {(shelf?.blades ?? []).map(({ blade }) => (
          <option key={blade.id} value={blade.code} />
        ))}
      </datalist>
    </fieldset>
  );
}

function Preparations({ draft, onDraft }: Pick<Props, "draft" | "onDraft">) {
  const { preparations } = draft;
  const change = (at: number, name: string) =>
    onDraft({ ...draft, preparations: preparations.map((each, i) => (i === at ? name : each)) });
  return (
    <>
      <div className="grid grid-cols-2 gap-3">
        {preparations.map((name, at) => (
          <Field
            // biome-ignore lint/suspicious/noArrayIndexKey: a preparation is known by its place
            key={at}
            label={`Preparation ${at + 1}`}
            value={name}
            onChange={(e) => change(at, e.target.value)}
            placeholder={["coarse", "polished"][at] ?? "stropped"}
          />
        ))}
      </div>
      <Button
        kind="quiet"
        className="self-start px-0"
        onClick={() => onDraft({ ...draft, preparations: [...preparations, ""] })}
      >
        Add a preparation
      </Button>
    </>
  );
}
