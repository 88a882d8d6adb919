/** The animal that a label's code leads to: labels carry the address of an animal's page. Null for any other text. */
export function animalOf(text: string): string | null {
  return /\/animals\/([0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12})(?:[/?#]|$)/i.exec(text)?.[1] ?? null;
}
