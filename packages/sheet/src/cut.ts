/** A text of at most so many UTF-16 units, as fields count them, that ends with a whole character. */
export function cutText(text: string, most: number): string {
  return text.slice(0, most).replace(/[\uD800-\uDBFF]$/u, '');
}
