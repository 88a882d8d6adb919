/** Whether each word of what is looked for stands somewhere in a text, in whatever order and letters. */
export function hasAllWords(text: string, search: string): boolean {
  const lower = text.toLowerCase();
  return search
    .toLowerCase()
    .split(/\s+/)
    .every((word) => lower.includes(word));
}
