/** Words as a sentence begins: with a capital letter, and a full stop at the end. */
export function sentence(words: string): string {
  return `${words.charAt(0).toUpperCase()}${words.slice(1)}${/[.?!]$/.test(words) ? "" : "."}`;
}
