import type { MethodDraft } from "./draft";

export interface PartProps {
  draft: MethodDraft;
  onChange: (draft: MethodDraft) => void;
  /** What is wrong at a field of the wire, if anything. */
  at: (field: string) => string | undefined;
}

type TextName = {
  [Name in keyof MethodDraft]: MethodDraft[Name] extends string ? Name : never;
}[keyof MethodDraft];

/** The value of one text of a method, and what typing in it does. */
export const textOf = ({ draft, onChange }: PartProps, name: TextName) => ({
  value: draft[name],
  onChange: (e: { target: { value: string } }) => onChange({ ...draft, [name]: e.target.value }),
});

/** The same for a cell of a list. */
export const cellOf = <T extends object>(
  row: T,
  change: (part: Partial<T>) => void,
  name: keyof T & string,
) => ({
  value: String(row[name] ?? ""),
  onChange: (e: { target: { value: string } }) =>
    change({ [name]: e.target.value } as unknown as Partial<T>),
});
