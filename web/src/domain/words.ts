import { WORDS } from "./words.gen";

export { WORDS };
export type List = keyof typeof WORDS;
export type WordOf<L extends List> = (typeof WORDS)[L][number][0];
/** The words of a list, each with its label. */
export type Pairs = ReadonlyArray<readonly [word: string, label: string]>;

/** How a word of a list is written for people; empty where the list does not have it. */
export const labelOf = (list: List, word: string | null | undefined): string =>
  (WORDS[list] as Pairs).find(([each]) => each === word)?.[1] ?? "";
