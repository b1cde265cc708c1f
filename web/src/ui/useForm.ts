import { type FieldKind, readTyped, type ValueOf } from "../domain/typed";
import { useDraft } from "./useDraft";

type Kinds = Readonly<Record<string, FieldKind>>;
type Typed<K extends Kinds> = { [Name in keyof K]: string };
export type Values<K extends Kinds> = { [Name in keyof K]: ValueOf<K[Name]> };

interface Options<K extends Kinds> {
  /** Where what is typed is stored until it is saved. */
  draft: string;
  /** How each field is read. */
  kinds: K;
  start: Typed<K>;
  /** The refusal of the last saving, if any; it names its field. */
  error?: Error | null;
}

/**
 * A form: what is typed, read by the kind of each field, with its errors at the fields. `read` gives
 * the values, or null while one cannot be read: nothing is sent then, and nothing typed is lost.
 */
export function useForm<K extends Kinds>({ draft, kinds, start, error = null }: Options<K>) {
  const [typed, setTyped, drop] = useDraft(draft, start);
  const names = Object.keys(kinds) as Array<keyof K & string>;
  const readOf = (name: keyof K & string) => readTyped(kinds[name] ?? "text", typed[name]);
  const wrongAt = (name: keyof K & string): string | undefined => {
    const read = readOf(name);
    return "wrong" in read && typed[name].trim() ? read.wrong : undefined;
  };
  const set = (part: Partial<Typed<K>>) => setTyped({ ...typed, ...part });
  const read = (): Values<K> | null => {
    const found = names.map((name) => [name, readOf(name)] as const);
    if (found.some(([, each]) => "wrong" in each)) return null;
    const values = found.map(([name, each]) => [name, "value" in each ? each.value : null]);
    return Object.fromEntries(values) as Values<K>;
  };
  const field = (name: keyof K & string, wire: string = name) => ({
    value: typed[name],
    onChange: (e: { target: { value: string } }) =>
      set({ [name]: e.target.value } as Partial<Typed<K>>),
    inputMode: isNumber(kinds[name]) ? ("decimal" as const) : undefined,
    error: wrongAt(name) ?? refusalAt(error, wire),
  });
  const at = (wire: string) => refusalAt(error, wire);
  return { typed, set, field, read, drop, at, notice: noticeOf(error) };
}

const isNumber = (kind: FieldKind | undefined) => kind === "number" || typeof kind === "object";

/** What a refusal says at a field. */
function refusalAt(error: Error | null, field: string): string | undefined {
  const at = (error as { at?: (field: string) => string | undefined } | null)?.at;
  return error && at ? at.call(error, field) : undefined;
}

/** What is wrong at no field: shown beside the button. */
function noticeOf(error: Error | null): string | undefined {
  const field = (error as { problem?: { field?: string | null } } | null)?.problem?.field;
  return error && !field ? error.message : undefined;
}
