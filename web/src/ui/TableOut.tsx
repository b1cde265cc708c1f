import { type RefObject, useState } from "react";
import { cellText, csvOf, tsvOf } from "../domain/tableText";
import { saveAs } from "./saveAs";
import { TextButton } from "./TextButton";

/** A table taken into a spreadsheet: as it is shown, copied or saved. */
export function TableOut({ of, name }: { of: RefObject<HTMLElement | null>; name: string }) {
  const [copied, setCopied] = useState(false);
  const rows = () =>
    [...(of.current?.querySelectorAll("tr") ?? [])].map((row) =>
      // biome-ignore lint/performance/useDomNodeTextContent: lines of a cell stay apart
      [...row.cells].map((cell) => cellText(cell.innerText)),
    );
  const copy = async () => {
    await navigator.clipboard.writeText(tsvOf(rows()));
    setCopied(true);
    setTimeout(() => setCopied(false), 2000);
  };
  const save = () =>
    saveAs(new Blob(["\ufeff", csvOf(rows())], { type: "text/csv" }), `${name}.csv`);
  return (
    <p className="flex gap-4 print:hidden">
      {navigator.clipboard ? (
        <TextButton small onClick={() => void copy()} aria-label={`Copy: ${name}`}>
          {copied ? "Copied" : "Copy table"}
        </TextButton>
      ) : null}
      <TextButton small onClick={save} aria-label={`Save as CSV: ${name}`}>
        Save as CSV
      </TextButton>
    </p>
  );
}
