/**
 * Which key does what at the bench: letters can be changed or switched off, and a pedal's key
 * learned.
 */

export interface Action {
  readonly id: string;
  readonly key: string;
  readonly does: string;
}

export const ACTIONS: readonly Action[] = [
  { id: "note", key: "n", does: "note" },
  { id: "break", key: "b", does: "break" },
  { id: "stop", key: "s", does: "stop" },
  { id: "spoiled", key: "x", does: "spoiled cut" },
  { id: "list", key: "l", does: "list of events" },
  { id: "pieces", key: "w", does: "whole pieces" },
  { id: "other", key: "v", does: "the other blade" },
  { id: "sound", key: "m", does: "sound" },
  { id: "read", key: "r", does: "virtual reading" },
  { id: "takeover", key: "t", does: "count here" },
  { id: "accept", key: "a", does: "accept proposals" },
  { id: "keys", key: "k", does: "keys and pedal" },
  { id: "pass", key: "p", does: "passes" },
  { id: "fail", key: "f", does: "fails" },
  { id: "doubt", key: "d", does: "in doubt" },
  { id: "clean", key: "c", does: "clean" },
  { id: "glint", key: "g", does: "glint" },
  { id: "roll", key: "o", does: "roll" },
  { id: "chip", key: "i", does: "chip" },
  { id: "burr", key: "u", does: "burr" },
];

export interface KeyChoice {
  readonly letters: Readonly<Record<string, string>>;
  readonly lettersOn: boolean;
  readonly pedal: string | null;
}

const STORED = "kessik-keys";
const OWN_KEYS = new Set([
  " ",
  "Enter",
  "Backspace",
  "Escape",
  "Tab",
  "?",
  "Shift",
  "Control",
  "Alt",
  "Meta",
]);
const USUAL: KeyChoice = {
  letters: Object.fromEntries(ACTIONS.map((a) => [a.id, a.key])),
  lettersOn: true,
  pedal: null,
};

export function loadKeys(): KeyChoice {
  try {
    const kept = JSON.parse(localStorage.getItem(STORED) ?? "{}") as Partial<KeyChoice>;
    return { ...USUAL, ...kept, letters: { ...USUAL.letters, ...kept.letters } };
  } catch {
    return USUAL;
  }
}

export function keepKeys(keys: KeyChoice): void {
  localStorage.setItem(STORED, JSON.stringify(keys));
}

const nameOf = (key: string) => (key.length === 1 ? key.toUpperCase() : key);

/** Give an action another letter, or say why that cannot be. */
export function withLetter(keys: KeyChoice, actionId: string, key: string): KeyChoice | string {
  const letter = key.toLowerCase();
  if (!/^\p{L}$/u.test(letter)) return `${nameOf(key)} is not a letter`;
  const other = ACTIONS.find((a) => a.id !== actionId && keys.letters[a.id] === letter);
  if (other) return `${nameOf(letter)} is the key for “${other.does}”; change that one first`;
  if (letter === keys.pedal?.toLowerCase()) return `${nameOf(letter)} is the pedal's key`;
  return { ...keys, letters: { ...keys.letters, [actionId]: letter } };
}

/** Learn the key that a pedal sends, or say what it would collide with. */
export function withPedal(keys: KeyChoice, key: string): KeyChoice | string {
  if (/^[0-9.,/;+]$/.test(key))
    return `${key} is typed in readings; set the pedal to send another key`;
  if (key !== " " && OWN_KEYS.has(key))
    return `${nameOf(key)} already has a use at the bench; set the pedal to another key`;
  const other = keys.lettersOn
    ? ACTIONS.find((a) => keys.letters[a.id] === key.toLowerCase())
    : undefined;
  if (other)
    return (
      `${nameOf(key)} is the key for “${other.does}”; change that one, or switch letter keys ` +
      "off"
    );
  return { ...keys, pedal: key };
}
