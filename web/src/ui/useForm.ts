import { type FormEvent, useState } from "react";
import { type FieldKind, readTyped, type ValueOf } from "../domain/typed";
import { elsewhere, refusalAt } from "./refusal";
import { useDraft } from "./useDraft";

type Kinds = Readonly<Record<string, FieldKind>>;
export type Typed<K extends Kinds> = { [Name in keyof K]: string };
export type Values<K extends Kinds> = { -readonly [Name in keyof K]: ValueOf<K[Name]> };
const NOTHING = {};
type Name<K extends Kinds> = keyof K & string;

interface Options<K extends Kinds> {
  /** Where what is typed is stored until it is saved; without one it lasts while it is shown. */
  draft?: string;
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
export function useForm<const K extends Kinds>({ draft, kinds, start, error }: Options<K>) {
  const [changed, setChanged, drop] = useDraft<Partial<Typed<K>>>(draft, NOTHING);
  const [isTried, setIsTried] = useState(false);
  const typed: Typed<K> = { ...start, ...changed };
  const shown = new Set<string>();
  const names = Object.keys(kinds) as Name<K>[];
  const readOf = (name: Name<K>) => readTyped(kinds[name] as FieldKind, typed[name]);
  const set = (part: Partial<Typed<K>>) => setChanged({ ...changed, ...part });
  const put = (name: Name<K>, text: string) => set({ [name]: text } as Partial<Typed<K>>);

  /** What is wrong at a field: what cannot be read, and what is missing once saving was tried. */
  const wrongAt = (name: Name<K>): string | undefined => {
    const read = readOf(name);
    if (!("wrong" in read)) return undefined;
    return typed[name].trim() || isTried || start[name] ? read.wrong : undefined;
  };
  const valuesNow = (): Values<K> | null => {
    const found = names.map((name) => [name, readOf(name)] as const);
    if (found.some(([, each]) => "wrong" in each)) return null;
    const values = found.map(([name, each]) => [name, "value" in each ? each.value : null]);
    return Object.fromEntries(values) as Values<K>;
  };
  const read = (): Values<K> | null => {
    setIsTried(true);
    return valuesNow();
  };
  const at = (wire: string) => {
    shown.add(wire);
    return refusalAt(error, wire);
  };
  const errorAt = (name: Name<K>, wire: string) => {
    const refused = at(wire);
    return wrongAt(name) ?? refused;
  };

  return {
    typed,
    set,
    read,
    drop,
    at,
    /** What stands there now; null while something of it cannot be read. */
    values: valuesNow(),
    isChanged: names.some((name) => typed[name] !== start[name]),
    /** What went wrong at no field shown before it: to stand beside the button. */
    get notice(): string | undefined {
      return elsewhere(error, shown);
    },
    /** What an input takes. */
    field: (name: Name<K>, wire: string = name) => ({
      value: typed[name],
      onChange: (e: { target: { value: string } }) => put(name, e.target.value),
      inputMode: isNumber(kinds[name]) ? ("decimal" as const) : undefined,
      error: errorAt(name, wire),
    }),
    /** What a choice takes. */
    choice: (name: Name<K>, wire: string = name) => ({
      value: typed[name],
      onPick: (picked: string) => put(name, picked),
      error: errorAt(name, wire),
    }),
    /** What a yes or no takes. */
    tick: (name: Name<K>) => ({
      checked: typed[name] === "yes",
      onTick: (is: boolean) => put(name, is ? "yes" : ""),
    }),
    /** What a form element takes: its values go on once all of them can be read. */
    onSubmit: (send: (values: Values<K>) => void) => (event: FormEvent) => {
      event.preventDefault();
      const values = read();
      if (values) send(values);
    },
  };
}

const isNumber = (kind: FieldKind | undefined) =>
  kind === "number" || (typeof kind === "object" && !("word" in kind));
