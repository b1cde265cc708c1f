import { queryOptions } from "@tanstack/react-query";
import { formOf, sendForm } from "./changes";
import { api, body, type Schemas } from "./client";

/** Results on paper, and what is put right later. */

const trial = (id: string) => ({ params: { path: { trial_id: id } } });

export const paperFormQuery = (trialId: string) =>
  queryOptions({
    queryKey: ["paper-form", trialId],
    queryFn: () => body(api.GET("/api/trials/{trial_id}/paper-form", trial(trialId))),
  });

export const keepPaper = (trialId: string, paper: Schemas["PaperBody"]) =>
  body(api.POST("/api/trials/{trial_id}/paper-runs", { ...trial(trialId), body: paper }));

export const checkPaper = (trialId: string, paper: Schemas["PaperBody"]) =>
  body(api.POST("/api/trials/{trial_id}/paper-checks", { ...trial(trialId), body: paper }));

export const recordQuery = (trialId: string) =>
  queryOptions({
    queryKey: ["record", trialId],
    queryFn: () => body(api.GET("/api/trials/{trial_id}/record", trial(trialId))),
  });

export const changeRun = (runId: string, change: Schemas["RunPatch"]) =>
  body(api.PATCH("/api/runs/{run_id}", { params: { path: { run_id: runId } }, body: change }));

export const archiveTrial = (trialId: string, archived: boolean) =>
  body(api.PUT("/api/trials/{trial_id}/archived", { ...trial(trialId), body: { archived } }));

export const binQuery = queryOptions({
  queryKey: ["bin"],
  queryFn: () => body(api.GET("/api/bin")),
});

export type BinnedKind = Schemas["TakeAwayBody"]["kind"];

export const hangsOnQuery = (kind: BinnedKind, ownerId: string) =>
  queryOptions({
    queryKey: ["dependents", kind, ownerId],
    queryFn: () =>
      body(
        api.GET("/api/dependents/{kind}/{owner_id}", {
          params: { path: { kind, owner_id: ownerId } },
        }),
      ),
  });

const binned = (id: string) => ({ params: { path: { bin_id: id } } });

export const putIntoBin = (id: string, what: Schemas["TakeAwayBody"]) =>
  body(api.PUT("/api/bin/{bin_id}", { ...binned(id), body: what }));

export const bringBack = (id: string) =>
  body(api.PUT("/api/bin/{bin_id}/brought-back", binned(id)));

export const deleteForGood = (id: string) => body(api.DELETE("/api/bin/{bin_id}", binned(id)));

export const findQuery = (text: string) =>
  queryOptions({
    queryKey: ["find", text],
    queryFn: () => body(api.GET("/api/find", { params: { query: { text } } })),
  });

export const backupsQuery = queryOptions({
  queryKey: ["backups"],
  queryFn: () => body(api.GET("/api/backups")),
});

export const makeBackup = () => body(api.POST("/api/backups"));

export const putBackupRule = (rule: Schemas["BackupRuleBody"]) =>
  body(api.PUT("/api/backups/rule", { body: rule }));

export const holdsQuery = (name: string) =>
  queryOptions({
    queryKey: ["holds", name],
    queryFn: () => body(api.GET("/api/backups/{name}/holds", { params: { path: { name } } })),
  });

export interface SheetAsked {
  readonly file: File;
  readonly reading: Schemas["SheetReadingBody"] | null;
  readonly trialId: string;
  readonly name: string;
  readonly school: string;
}

async function sheetForm(asked: SheetAsked): Promise<FormData> {
  const form = await formOf([asked.file], "file");
  if (asked.reading) form.append("reading", JSON.stringify(asked.reading));
  form.append("trial_id", asked.trialId);
  form.append("name", asked.name);
  form.append("school", asked.school);
  return form;
}

export const lookSheetOver = async (asked: SheetAsked) =>
  sendForm<Schemas["SheetPreviewOut"]>("/api/sheet-previews", await sheetForm(asked));

export async function bringSheetIn(
  asked: SheetAsked,
  how: { on_there: "skip" | "replace"; reading_name: string; by: string; import_id: string },
) {
  const form = await sheetForm(asked);
  for (const [name, value] of Object.entries(how)) form.append(name, value);
  return sendForm<Schemas["BroughtOut"]>("/api/sheet-imports", form);
}

export const lookWithout = (trialId: string, without: Schemas["WithoutBody"]) =>
  body(api.POST("/api/trials/{trial_id}/looks-without", { ...trial(trialId), body: without }));

export const livesUnder = (trialId: string, limit_gf: number) =>
  body(
    api.GET("/api/trials/{trial_id}/lives-under", {
      params: { path: { trial_id: trialId }, query: { limit_gf } },
    }),
  );

export const strikeOut = (trialId: string, out: Schemas["StrikeOutBody"]) =>
  body(api.POST("/api/trials/{trial_id}/strikes", { ...trial(trialId), body: out }));

export const putMethodAway = (lineId: string, archived: boolean) =>
  body(
    api.PUT("/api/methods/{line_id}/archived", {
      params: { path: { line_id: lineId } },
      body: { archived },
    }),
  );
