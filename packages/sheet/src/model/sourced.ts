/** A value with where it comes from, wherever it stands in a line. */
export interface SourcedValue {
  readonly trust: string;
  readonly source: string;
  readonly page?: string | undefined;
  /** Path within the line. */
  readonly path: string;
}

export function sourcedIn(held: unknown, path = ''): readonly SourcedValue[] {
  if (typeof held !== 'object' || held === null) return [];
  const { trust, source, page } = held as { trust?: unknown; source?: unknown; page?: string };
  const own = trust === undefined ? [] : [{ trust: String(trust), source: String(source ?? ''), page, path }];
  return [...own, ...Object.entries(held).flatMap(([name, inner]) => sourcedIn(inner, path === '' ? name : `${path}.${name}`))];
}
