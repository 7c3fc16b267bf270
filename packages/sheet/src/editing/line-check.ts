import { validated } from '../given/validation.js';
import { SheetFile } from '../model/file.js';
import type { SheetList } from '../model/lists.js';
import type { LocatedIssue } from '../reading/plain.js';
import { readYaml } from '../reading/yaml.js';

/**
 * What is wrong with one line of a sheet while it is being written as YAML: its syntax first, then its fields. Each with the
 * line of the text, from 1. Whether it fits the rest of the sheet is the checker's to say.
 */
export function lineIssues(list: SheetList, text: string): readonly LocatedIssue[] {
  const read = readYaml(text);
  if (!read.ok) return [read.issue];
  const at = `${list}[0]`;
  return validated(SheetFile, { [list]: [read.plain] })
    .issues.filter(({ path }) => path === at || path.startsWith(`${at}.`) || path.startsWith(`${at}[`))
    .map((issue) => {
      const within = issue.path.slice(at.length);
      const keys = [...within.matchAll(/\.([^.[\]]+)|\[(\d+)\]/gu)].map(([, name, index]) => name ?? Number(index));
      // What is missing stands nowhere: it is told where it belongs.
      const line = keys.reduceRight<number | undefined>((found, _, depth) => found ?? read.lineOf(keys.slice(0, depth + 1)), undefined);
      return { ...issue, path: within.replace(/^\./u, ''), line: line ?? 1 };
    });
}
