/**
 * The pictures of an animal that buyers see.
 *
 * @param pictureIds - those that were chosen, in their order; null: all of them, in the order given
 */
export function shownPictures<Picture extends { readonly id: string }>(
  pictures: readonly Picture[],
  pictureIds: readonly string[] | null,
): Picture[] {
  if (pictureIds === null) return [...pictures];
  const byId = new Map(pictures.map((picture) => [picture.id, picture]));
  return pictureIds.flatMap((id) => byId.get(id) ?? []);
}
