import { TERMS } from "./words.gen";

export type TermName = keyof typeof TERMS;

/** The longest first, so that "settled edge" is not taken for a shorter term in it. */
const NAMES = (Object.keys(TERMS) as TermName[]).sort((a, b) => b.length - a.length);

/** Labels whose word means another thing: a test block of hardness is no block of runs. */
const OTHER_MEANING = /test block/i;

/** The term of the glossary that a label speaks of, as a whole word, singular or plural. */
export const termIn = (label: string): TermName | undefined =>
  OTHER_MEANING.test(label)
    ? undefined
    : NAMES.find((name) => new RegExp(`\\b${name}s?\\b`, "i").test(label));
