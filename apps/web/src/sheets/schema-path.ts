/** As much of JSON Schema as the published one uses. */
export interface Schema {
  readonly $ref?: string;
  readonly $defs?: Readonly<Record<string, Schema>>;
  readonly type?: string;
  readonly description?: string;
  readonly properties?: Readonly<Record<string, Schema>>;
  readonly required?: readonly string[];
  readonly items?: Schema;
  readonly enum?: readonly (string | number | boolean)[];
}

/** What may stand at a place of a sheet, followed from its root by the names on the way; lists are gone through. */
export function schemaAt(root: Schema, path: readonly string[]): Schema | undefined {
  const whole = (schema: Schema | undefined): Schema | undefined => {
    if (schema?.$ref !== undefined) return whole(root.$defs?.[schema.$ref.replace('#/$defs/', '')]);
    return schema?.items === undefined ? schema : whole(schema.items);
  };
  return path.reduce<Schema | undefined>((schema, name) => whole(schema?.properties?.[name]), whole(root));
}

/** Names on the way to a line of block YAML, outermost first, by its indentation; and those beside it. */
export function pathTo(lines: readonly string[], at: number): { readonly path: readonly string[]; readonly beside: readonly string[] } {
  const depthOf = (line: string): number => /^(?:\s|- )*/u.exec(line)?.[0].length ?? 0;
  const nameOf = (line: string): string | undefined => /^(?:\s|- )*([\w-]+)\s*:/u.exec(line)?.[1];
  const own = depthOf(lines[at] ?? '');
  const path: string[] = [];
  let depth = own;
  for (let above = at - 1; above >= 0 && depth > 0; above -= 1) {
    const line = lines[above] ?? '';
    const name = nameOf(line);
    if (name === undefined || depthOf(line) >= depth) continue;
    path.unshift(name);
    depth = depthOf(line);
  }
  const beside: string[] = [];
  for (const step of [-1, 1])
    for (let line = at + step; line >= 0 && line < lines.length; line += step) {
      const text = lines[line] ?? '';
      if (text.trim() === '') continue;
      const begins = text.trimStart().startsWith('- ') && depthOf(text) <= own;
      if (depthOf(text) < own || (begins && step === 1)) break;
      const name = depthOf(text) === own ? nameOf(text) : undefined;
      if (name !== undefined) beside.push(name);
      if (begins) break;
    }
  return { path, beside };
}
