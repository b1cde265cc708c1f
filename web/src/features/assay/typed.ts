import { quoted } from "../../domain/format";
/** Shots as people type or paste them: a line an element. */

export interface ReadLine {
  readonly line: number;
  readonly element: string;
  readonly percent: number;
  readonly plusMinus: number | null;
  readonly detected: boolean;
  readonly wrong?: string;
}

const NUMBER = /^[<±+-]*\d+([.,]\d+)?%?$/;

/** The lines of a text that hold something, each as an element with its content and ±. */
export function readLines(text: string): ReadLine[] {
  return text
    .split("\n")
    .map((line, i) => ({ line: i + 1, parts: partsOf(line) }))
    .filter(({ parts }) => parts.length > 0)
    .map(({ line, parts }) => readLine(line, parts));
}

function partsOf(line: string): string[] {
  return line
    .replace(/[;\t]|±|\+\/-/g, " ")
    .replace(/<\s+/g, "<")
    .split(/\s+/)
    .filter((part) => part !== "" && part !== "%");
}

function readLine(line: number, parts: readonly string[]): ReadLine {
  const [element = "", content = "", spread] = parts;
  const below = content.startsWith("<");
  const percent = numberOf(content);
  const plusMinus = spread === undefined ? null : numberOf(spread);
  const found = { line, element, percent, plusMinus, detected: !below };
  const isSound = Number.isFinite(percent) && (plusMinus === null || Number.isFinite(plusMinus));
  if (isSound && parts.length <= 3) return found;
  return {
    ...found,
    wrong: `line ${line}: ${quoted(parts.join(" "))} is not a symbol, a content and its ±`,
  };
}

function numberOf(part: string): number {
  return NUMBER.test(part) ? Number(part.replace(/[<%]/g, "").replace(",", ".")) : Number.NaN;
}
