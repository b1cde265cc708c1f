import { saveAs } from "../ui/saveAs";
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
