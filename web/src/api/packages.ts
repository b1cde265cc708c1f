import { queryOptions } from "@tanstack/react-query";
import type { LeftOut } from "../domain/leftOut";
import { formOf, sendForm } from "./changes";
import { api, body, type Schemas } from "./client";
import { folderAddress } from "./folder";
import { saveAnswer } from "./saving";

export const testersQuery = queryOptions({
  queryKey: ["testers"],
  queryFn: () => body(api.GET("/api/testers")),
});

export const nameTesterHere = (name: string) =>
  body(api.PUT("/api/testers/here", { body: { name } }));

export const bladeQuestionsQuery = queryOptions({
  queryKey: ["blade-questions"],
  queryFn: () => body(api.GET("/api/blade-questions")),
});

export const saySame = (said: Schemas["SameBladeBody"]) =>
  body(api.PUT("/api/blade-questions", { body: said }));

export const askAgain = ({ one, other }: { one: string; other: string }) =>
  body(api.DELETE("/api/blade-questions/{one}/{other}", { params: { path: { one, other } } }));

/** A package brought in; the answer says what it brought. */
export async function bringPackage(file: File, importId: string, isMine: boolean) {
  const form = await formOf([file], "package");
  form.append("import_id", importId);
  form.append("is_mine", String(isMine));
  return sendForm<Schemas["PackageBroughtOut"]>("/api/package-imports", form);
}

/** A package fetched and saved by the browser under a name. */
export async function savePackage(wish: {
  trials: readonly string[];
  leaveOut: readonly LeftOut[];
  pictures: boolean;
}): Promise<void> {
  const asked = new URLSearchParams();
  for (const trial of wish.trials) asked.append("trial", trial);
  for (const each of wish.leaveOut) asked.append("leave_out", each);
  if (wish.pictures) asked.append("pictures", "true");
  await saveAnswer(fetch(folderAddress(`/api/package?${asked}`)), "trials.kessik.zip");
}
