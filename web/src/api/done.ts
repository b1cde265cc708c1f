/** What one act did, as the server names it in a header of its answers. */
export interface Done {
  readonly id: string;
  readonly says: string;
}

const HEADER = "kessik-change";
/** What a change did, and the paths it went to, as heard while it ran. */
interface Heard {
  readonly done: Done[];
  readonly paths: string[];
}
const listening = new Set<Heard>();

/** Every request that changes something passes here: what it may have touched is read again. */
export function noteSent(path: string): void {
  for (const heard of listening) heard.paths.push(path);
}

/** Every answer passes here: what can be undone is told to whoever is listening. */
export function noteDone(answer: Response): void {
  const named = answer.headers.get(HEADER);
  if (!named) return;
  const [id = "", says = ""] = named.split(" ");
  for (const heard of listening) heard.done.push({ id, says: decodeURIComponent(says) });
}

/**
 * Run a change and hear what it did, and where; what it did is left out where another ran at the
 * same time, because nobody could tell whose was whose.
 */
export async function hearing<T>(
  change: () => Promise<T>,
): Promise<{ made: T; done: readonly Done[]; paths: readonly string[] }> {
  const heard: Heard = { done: [], paths: [] };
  let isAlone = listening.size === 0;
  listening.add(heard);
  try {
    const made = await change();
    isAlone &&= listening.size === 1;
    return { made, done: isAlone ? heard.done : [], paths: heard.paths };
  } finally {
    listening.delete(heard);
  }
}
