import { newId } from "../domain/ids";
import { type FieldKind, readTyped, type ValueOf } from "../domain/typed";
import { useDraft } from "./useDraft";

type Kinds = Readonly<Record<string, FieldKind>>;
/** A row as typed. */
export type RowTyped<K extends Kinds> = { [Name in keyof K]: string } & { readonly id: string };
/** A row as read. */
export type RowValues<K extends Kinds> = { -readonly [Name in keyof K]: ValueOf<K[Name]> } & {
  readonly id: string;
};
interface Options<K extends Kinds> {
  /** Where what is typed is stored until it is saved. */
  draft?: string;
  /** How each cell of a row is read. */
  kinds: K;
  start: readonly RowTyped<K>[];
}

/**
 * Rows of a form, typed and read by the kinds of their cells, as `useForm` does for single fields:
 * an unreadable cell is never sent as empty, and nothing typed is lost.
 */
export function useRows<const K extends Kinds>({ draft, kinds, start }: Options<K>) {
  const [kept, setKept, drop] = useDraft<{ rows: readonly RowTyped<K>[] | null }>(draft, NOTHING);
  const rows = kept.rows ?? start;
  const put = (next: readonly RowTyped<K>[]) => setKept({ rows: next });
  const set = (id: string, part: Partial<RowTyped<K>>) =>
    put(rows.map((row) => (row.id === id ? { ...row, ...part } : row)));
  const names = Object.keys(kinds) as (keyof K & string)[];
  const readOf = (row: RowTyped<K>, name: keyof K & string) =>
    readTyped(kinds[name] as FieldKind, row[name] as string);
  const wrongAt = (row: RowTyped<K>, name: keyof K & string): string | undefined => {
    const read = readOf(row, name);
    return "wrong" in read ? read.wrong : undefined;
  };

  return {
    rows,
    put,
    set,
    drop,
    add: (cells: Omit<RowTyped<K>, "id">) =>
      put([...rows, { ...cells, id: newId() } as RowTyped<K>]),
    remove: (id: string) => put(rows.filter((row) => row.id !== id)),
    /** The cells as a refusal names them, under the name of the rows. */
    fields: (of: string) => rows.flatMap((_, at) => names.map((name) => `${of}.${at}.${name}`)),
    /** The rows as they are sent; null while a cell of them cannot be read. */
    read: (): RowValues<K>[] | null => {
      if (rows.some((row) => names.some((name) => wrongAt(row, name)))) return null;
      return rows.map((row) => {
        const cells = names.map((name) => {
          const read = readOf(row, name);
          return [name, "value" in read ? read.value : null];
        });
        return { id: row.id, ...Object.fromEntries(cells) } as RowValues<K>;
      });
    },
    /** What an input in a cell takes. */
    cell: (row: RowTyped<K>, name: keyof K & string) => ({
      value: row[name] as string,
      onChange: (e: { target: { value: string } }) =>
        set(row.id, { [name]: e.target.value } as Partial<RowTyped<K>>),
      error: wrongAt(row, name),
    }),
    /** What a choice in a cell takes. */
    choice: (row: RowTyped<K>, name: keyof K & string) => ({
      value: row[name] as string,
      onPick: (picked: string) => set(row.id, { [name]: picked } as Partial<RowTyped<K>>),
    }),
  };
}

const NOTHING = { rows: null };
