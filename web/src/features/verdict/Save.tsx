import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useChange } from "../../api/changes";
import { folderAddress } from "../../api/folder";
import { lastReportQuery, saveChart, saveReport } from "../../api/reports";
import { day } from "../../domain/format";
import { leftOut } from "../../domain/leftOut";
import { LeaveOut } from "../../parts/LeaveOut";
import { Button, buttonLook } from "../../ui/Button";
import { Note } from "../../ui/Note";
import { Notice } from "../../ui/Notice";
import { Heading } from "../../ui/Section";

const CHARTS = [
  ["curves", "Curves"],
  ["lives", "Lives"],
] as const;

/** A trial taken out of Kessik: as a report, as pictures of its charts, as files. */
export function Save({ trialId, charts }: { trialId: string; charts: readonly string[] }) {
  const [out, setOut] = useState(leftOut);
  const client = useQueryClient();
  const last = useQuery(lastReportQuery(trialId));
  const report = useChange(async (kind: "pdf" | "html" | "xlsx") => {
    await saveReport({ trials: [trialId], kind, leave_out: [...out], with_standings: false });
    await client.invalidateQueries(lastReportQuery(trialId));
  });
  const picture = useChange(({ chart, kind }: { chart: string; kind: "svg" | "png" }) =>
    saveChart(trialId, chart, kind),
  );
  return (
    <div className="flex flex-col gap-6">
      <section aria-label="Report">
        <Heading>Report</Heading>
        <Note>
          Question, answer, charts, tables, method, what was left out and every reading, to print or
          to send; the workbook works out plain means and ratios in formulas.
        </Note>
        <LeaveOut out={out} onPick={setOut} />
        <p className="mt-2 flex flex-wrap gap-3">
          <Button kind="next" disabled={report.isPending} onClick={() => report.mutate("pdf")}>
            {report.isPending ? "Writing …" : "Save as PDF"}
          </Button>
          <Button disabled={report.isPending} onClick={() => report.mutate("html")}>
            Save as HTML
          </Button>
          <Button disabled={report.isPending} onClick={() => report.mutate("xlsx")}>
            Save as workbook (XLSX)
          </Button>
        </p>
        {last.data?.made_utc ? (
          <p className={`mt-2 ${last.data.is_current ? "text-ink-2" : "font-medium text-rust"}`}>
            The last report was made {day(last.data.made_utc)};{" "}
            {last.data.is_current
              ? "its answer is today's."
              : "its answer is no longer today's: make it again."}
          </p>
        ) : null}
      </section>
      {charts.length ? (
        <section aria-label="Charts">
          <Heading>Charts</Heading>
          {CHARTS.filter(([chart]) => charts.includes(chart)).map(([chart, label]) => (
            <p key={chart} className="mt-1 flex flex-wrap items-center gap-3">
              <span className="min-w-16">{label}</span>
              <Button onClick={() => picture.mutate({ chart, kind: "png" })}>Save PNG</Button>
              <Button onClick={() => picture.mutate({ chart, kind: "svg" })}>Save SVG</Button>
            </p>
          ))}
        </section>
      ) : null}
      <section aria-label="Files">
        <Heading>Files</Heading>
        <a
          className={`${buttonLook()} mt-1`}
          href={folderAddress(`/api/trials/${trialId}/files`)}
          download
        >
          Save tables (CSV)
        </a>
      </section>
      <Notice says={report.error?.message ?? picture.error?.message} />
    </div>
  );
}
