import { Away, Refused, type Schemas } from "./client";

/** An answer that is a file, saved by the browser under the name it comes with. */
export async function saveAnswer(asked: Promise<Response>, name: string): Promise<void> {
  let answer: Response;
  try {
    answer = await asked;
  } catch {
    throw new Away();
  }
  if (!answer.ok) throw new Refused((await answer.json()) as Schemas["Problem"]);
  const said = /filename\*=UTF-8''([^;]+)/.exec(answer.headers.get("content-disposition") ?? "");
  saveAs(await answer.blob(), said?.[1] ? decodeURIComponent(said[1]) : name);
}

function saveAs(content: Blob, name: string): void {
  const link = document.createElement("a");
  link.href = URL.createObjectURL(content);
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(link.href), 60_000);
}
