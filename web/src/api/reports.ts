import { queryOptions } from "@tanstack/react-query";
import { api, body, type Schemas } from "./client";
import { folderAddress } from "./folder";
import { saveAnswer } from "./saving";

/** A report made and saved; what it said is remembered. */
export const saveReport = (wish: Schemas["ReportBody"]) =>
  saveAnswer(
    fetch(folderAddress("/api/reports"), {
      method: "POST",
      headers: { "content-type": "application/json" },
      body: JSON.stringify(wish),
    }),
    `report.${wish.kind ?? "pdf"}`,
  );

export const saveChart = (trialId: string, chart: string, kind: "svg" | "png") =>
  saveAnswer(
    fetch(folderAddress(`/api/trials/${trialId}/charts/${chart}?kind=${kind}`)),
    `${chart}.${kind}`,
  );

export const lastReportQuery = (trialId: string) =>
  queryOptions({
    queryKey: ["last-report", trialId],
    queryFn: () =>
      body(
        api.GET("/api/trials/{trial_id}/last-report", { params: { path: { trial_id: trialId } } }),
      ),
  });
