import { type RefObject, useState } from "react";
import { csvOf, tsvOf } from "../domain/tableText";
import { saveAs } from "./saveAs";
import { TextButton } from "./TextButton";
import { shownRows } from "./useTableRows";

/** A table taken into a spreadsheet: as it is shown, copied or saved. */
export function TableOut({ of, name }: { of: RefObject<HTMLElement | null>; name: string }) {
  const [said, setSaid] = useState("");
  const copy = async () => {
    const done = navigator.clipboard.writeText(tsvOf(shownRows(of.current)));
    setSaid(
      await done.then(
        () => "Copied",
        () => "The browser does not allow copying",
      ),
    );
    setTimeout(() => setSaid(""), 2000);
  };
  const save = () =>
    saveAs(new Blob(["\ufeff", csvOf(shownRows(of.current))], { type: "text/csv" }), `${name}.csv`);
  return (
    <>
      {navigator.clipboard ? (
        <TextButton small onClick={() => void copy()} aria-label={`Copy: ${name}`}>
          {said || "Copy table"}
        </TextButton>
      ) : null}
      <TextButton small onClick={save} aria-label={`Save as CSV: ${name}`}>
        Save as CSV
      </TextButton>
    </>
  );
}
