/** A short name in small letters, digits and single hyphens out of words; empty where nothing of them is left. */
export function refOf(words: string, most = 40): string {
  return words
    .toLowerCase()
    .normalize('NFKD')
    .replace(/[^a-z0-9]+/gu, '-')
    .replace(/^-+|-+$/gu, '')
    .slice(0, most)
    .replace(/-+$/u, '');
}
