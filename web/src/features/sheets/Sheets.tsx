import { useMutation, useQuery } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { useLocation, useSearchParams } from "react-router";
import { Refused, type Schemas } from "../../api/client";
import { todayQuery } from "../../api/queries";
import { lookSheetOver, type SheetAsked } from "../../api/record";
import { LongField } from "../../ui/Field";
import { FilePick } from "../../ui/FilePick";
import { Notice } from "../../ui/Notice";
import { Page } from "../../ui/Page";
import { BringIn } from "./BringIn";
import { Columns } from "./Columns";
import { Preview } from "./Preview";
import { Target } from "./Target";

/** A sheet of results as it is: what each column is, what will become of each row, and in with it. */
export function Sheets() {
  const [search] = useSearchParams();
  const given = useLocation().state as { file?: File } | null;
  const today = useQuery(todayQuery);
  const [asked, setAsked] = useState<SheetAsked | null>(null);
  const look = useMutation({ mutationFn: lookSheetOver });
  const trialId = asked?.trialId ?? search.get("trial") ?? "";
  const ask = (change: Partial<SheetAsked> & { file?: File }) => {
    const file = change.file ?? asked?.file;
    if (!file) return;
    const next: SheetAsked = {
      reading: null,
      name: "",
      school: "",
      trialId,
      ...asked,
      ...change,
      file,
    };
    setAsked(next);
    look.mutate(next);
  };
  const first = useRef(given?.file);
  useEffect(() => {
    const file = first.current;
    first.current = undefined;
    if (file instanceof File) ask({ file, reading: null, school: "" });
  });
  const seen = look.data;
  const reread = (reading: Schemas["SheetReadingBody"]) => ask({ reading });
  return (
    <Page width="wide">
      <h1 className="answer max-w-4xl">{headline(seen)}</h1>
      {asked ? null : (
        <p className="mt-1 max-w-3xl text-ink-2">
          Kessik guesses the columns. You can change every guess, and nothing is saved before you
          press Save.
        </p>
      )}
      <Source isOpen={!seen} onFile={(file) => ask({ file, reading: null, school: "" })} />
      <Notice
        says={
          look.error
            ? look.error instanceof Refused
              ? (look.error.problem.faults?.[0]?.message ?? look.error.message)
              : look.error.message
            : undefined
        }
        className="mt-3 font-medium"
      />
      {seen && asked ? (
        <>
          <Target
            asked={{ ...asked, trialId }}
            seen={seen}
            trials={today.data?.trials ?? []}
            onAsk={ask}
          />
          <Columns seen={seen} onReading={reread} />
          <Preview seen={seen} />
          <BringIn
            key={`${asked.file.name}-${trialId}`}
            asked={{ ...asked, trialId, reading: seen.reading, school: seen.school }}
            seen={seen}
          />
        </>
      ) : null}
    </Page>
  );
}

function headline(seen: Schemas["SheetPreviewOut"] | undefined): string {
  if (!seen) return "Results from a spreadsheet";
  const runs = `${seen.new} ${seen.new === 1 ? "run" : "runs"} to save`;
  const there = seen.there ? `, ${seen.there} imported already` : "";
  const faulty = seen.faulty ? `, ${seen.faulty} to be corrected` : "";
  return `${seen.name}: ${runs}${there}${faulty}.`;
}

/** A file, or cells copied out of a sheet. */
function Source({ isOpen, onFile }: { isOpen: boolean; onFile: (file: File) => void }) {
  const [text, setText] = useState("");
  const paste = (pasted: string) => {
    setText(pasted);
    if (/[\t;,\n]/.test(pasted.trim()))
      onFile(new File([pasted], "pasted.tsv", { type: "text/tab-separated-values" }));
  };
  return (
    <details open={isOpen} className="mt-4">
      <summary className="min-h-11 cursor-pointer font-semibold">
        {isOpen ? "Open a file, or paste" : "Another file, or paste again"}
      </summary>
      <div className="grid gap-6 bench:grid-cols-2">
        <FilePick
          label="A sheet: CSV, TSV or XLSX"
          onPick={(files) => {
            const newest = files.at(-1);
            if (newest) onFile(newest);
          }}
          isWrong={false}
        />
        <LongField
          label="Cells copied out of a sheet, heads and all"
          rows={4}
          value={text}
          onChange={(e) => paste(e.target.value)}
        />
      </div>
    </details>
  );
}
