import texts from "./texts.json";

type Texts = typeof texts;
/** Where a text stands: its group and its name. */
export type TextKey = { [Group in keyof Texts]: `${Group}.${keyof Texts[Group] & string}` }[keyof Texts];
type Value = string | number | null | undefined;

const known = new Map<string, string>(
  Object.entries(texts).flatMap(([group, of]) =>
    Object.entries(of).map(([name, text]) => [`${group}.${name}`, text] as const),
  ),
);

/** A text of the interface, with its values put in; every text stands in texts.json, none in a component. */
export function say(key: TextKey, values: Readonly<Record<string, Value>> = {}): string {
  return (known.get(key) ?? key).replace(/\{(\w+)\}/g, (_, name: string) => String(values[name] ?? ""));
}
