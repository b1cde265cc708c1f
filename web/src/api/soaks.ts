import { formOf, sendForm } from "./changes";
import { api, body, type Schemas } from "./client";

/** What is changed in soaks, and measured in their pictures. */

const at = (soakId: string) => ({ params: { path: { soak_id: soakId } } });

export const putSoak = (id: string, soak: Schemas["SoakBody"]) =>
  body(api.PUT("/api/soaks/{soak_id}", { ...at(id), body: soak }));

export const patchSoak = (id: string, change: Schemas["SoakPatch"]) =>
  body(api.PATCH("/api/soaks/{soak_id}", { ...at(id), body: change }));

export const startSoak = (id: string, moment: Schemas["AtBody"]) =>
  body(api.PUT("/api/soaks/{soak_id}/started", { ...at(id), body: moment }));

export const putAct = (soakId: string, actId: string, act: Schemas["ActBody"]) =>
  body(
    api.PUT("/api/soaks/{soak_id}/acts/{act_id}", {
      params: { path: { soak_id: soakId, act_id: actId } },
      body: act,
    }),
  );

export const strikeAct = (soakId: string, actId: string, reason: string) =>
  body(
    api.PUT("/api/soaks/{soak_id}/acts/{act_id}/struck", {
      params: { path: { soak_id: soakId, act_id: actId } },
      body: { reason },
    }),
  );

export const putLook = (soakId: string, lookId: string, look: Schemas["LookBody"]) =>
  body(
    api.PUT("/api/soaks/{soak_id}/looks/{look_id}", {
      params: { path: { soak_id: soakId, look_id: lookId } },
      body: look,
    }),
  );

export const strikeLook = (soakId: string, lookId: string, reason: string) =>
  body(
    api.PUT("/api/soaks/{soak_id}/looks/{look_id}/struck", {
      params: { path: { soak_id: soakId, look_id: lookId } },
      body: { reason },
    }),
  );

export async function addPictures(soakId: string, files: readonly File[]) {
  const form = await formOf(files, "photos");
  return sendForm<Schemas["SoakPictureOut"][]>(`/api/soaks/${soakId}/pictures`, form);
}

export const outlineOf = (hash: string, lookId = "") =>
  body(
    api.GET("/api/pictures/{content_hash}/outline", {
      params: { path: { content_hash: hash }, query: { look_id: lookId } },
    }),
  );

export const outlineBetween = (
  hash: string,
  plunge: readonly [number, number],
  tip: readonly [number, number],
) =>
  body(
    api.POST("/api/pictures/{content_hash}/outline", {
      params: { path: { content_hash: hash } },
      body: { plunge: [...plunge], tip: [...tip] },
    }),
  );

export const readSeries = (soakId: string, picture: string, importId: string) =>
  body(
    api.POST("/api/soaks/{soak_id}/series", {
      ...at(soakId),
      body: { picture, import_id: importId },
    }),
  );

export const measureRust = (
  hash: string,
  measuring: Schemas["MeasuringBody"],
  earlierLook: string,
) =>
  body(
    api.POST("/api/pictures/{content_hash}/rust", {
      params: { path: { content_hash: hash }, query: { earlier_look: earlierLook } },
      body: measuring,
    }),
  );

export const takeFromCamera = (soakId: string) =>
  body(api.POST("/api/soaks/{soak_id}/camera-pictures", at(soakId)));

export const removePicture = (soakId: string, hash: string) =>
  body(
    api.DELETE("/api/soaks/{soak_id}/pictures/{content_hash}", {
      params: { path: { soak_id: soakId, content_hash: hash } },
    }),
  );

export async function importLooks(soakId: string, file: File) {
  const form = await formOf([file], "file");
  return sendForm<Schemas["TakenLooksOut"]>(`/api/soaks/${soakId}/look-imports`, form);
}

export const gradeBlind = (
  soakId: string,
  passId: string,
  number: number,
  grade: Schemas["BlindGradeBody"],
) =>
  body(
    api.PUT("/api/soaks/{soak_id}/passes/{pass_id}/{number}", {
      params: { path: { soak_id: soakId, pass_id: passId, number } },
      body: grade,
    }),
  );
