import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { methodsQuery } from "../../api/queries";
import { LIMITS } from "../../domain/limits.gen";
import { shownNumber } from "../../domain/typed";
import { Button } from "../../ui/Button";
import { Field } from "../../ui/Field";
import { Note } from "../../ui/Note";
import type { CheckDraft } from "./draft";
import { cellOf } from "./fields";

/** How readings of the gauge scatter; what a study found is there to be taken. */
export function ReadingScatter({
  check,
  onChange,
}: {
  check: CheckDraft;
  onChange: (part: Partial<CheckDraft>) => void;
}) {
  const gauge = useQuery(methodsQuery).data?.gauge;
  const studied = gauge ? shownNumber(gauge.percent) : "";
  return (
    <div className="bench:col-span-3">
      <Field
        className="max-w-56"
        label="Readings scatter by"
        unit="%"
        inputMode="decimal"
        placeholder={`usual: ${LIMITS.reading_scatter_percent.default}`}
        {...cellOf(check, onChange, "scatter")}
      />
      <Note className="mt-1">
        {gauge ? (
          `${gauge.says}.`
        ) : (
          <>
            Empty: as usual. A{" "}
            <Link to="/gauge" className="underline underline-offset-4">
              gauge study
            </Link>{" "}
            tells yours.
          </>
        )}
      </Note>
      {gauge && check.scatter !== studied ? (
        <Button kind="quiet" className="px-0" onClick={() => onChange({ scatter: studied })}>
          Use {studied} % here
        </Button>
      ) : null}
    </div>
  );
}
