/** What one act did, as the server names it in a header of its answers. */
export interface Done {
  readonly id: string;
  readonly says: string;
}

const HEADER = "kessik-change";
const listening = new Set<Done[]>();

/** Every answer passes here: what can be undone is told to whoever is listening. */
export function noteDone(answer: Response): void {
  const named = answer.headers.get(HEADER);
  if (!named) return;
  const [id = "", says = ""] = named.split(" ");
  for (const heard of listening) heard.push({ id, says: decodeURIComponent(says) });
}

/**
 * Run a change and hear what it did; nothing where another ran at the same time, because nobody
 * could tell whose was whose.
 */
export async function hearing<T>(change: () => Promise<T>): Promise<[T, readonly Done[]]> {
  const heard: Done[] = [];
  let isAlone = listening.size === 0;
  listening.add(heard);
  try {
    const made = await change();
    isAlone &&= listening.size === 1;
    return [made, isAlone ? heard : []];
  } finally {
    listening.delete(heard);
  }
}
