import { checkedSheet } from '../checking/sheet-issues.js';
import type { SheetFile } from '../model/file.js';
import type { SheetList } from '../model/lists.js';
import type { LocatedIssue } from '../reading/plain.js';
import { readYaml } from '../reading/yaml.js';

/**
 * What is wrong with one line of a sheet that is being written as YAML: its syntax first, then what the sheet would say
 * of it in its place. Each with the line of the text, from 1.
 */
export function lineIssues(sheet: SheetFile, list: SheetList, ref: string, text: string): readonly LocatedIssue[] {
  const read = readYaml(text);
  if (!read.ok) return [read.issue];
  const lines = (sheet[list] ?? []) as readonly { readonly ref: string }[];
  const place = lines.findIndex((line) => line.ref === ref);
  const at = `${list}[${place}]`;
  const { issues } = checkedSheet({ ...sheet, [list]: lines.map((line, index) => (index === place ? read.plain : line)) });
  return issues
    .filter(({ path }) => path === at || path.startsWith(`${at}.`) || path.startsWith(`${at}[`))
    .map((issue) => {
      const within = issue.path.slice(at.length);
      const keys = [...within.matchAll(/\.([^.[\]]+)|\[(\d+)\]/gu)].map(([, name, index]) => name ?? Number(index));
      // What is missing stands nowhere: it is told where it belongs.
      const line = keys.reduceRight<number | undefined>((found, _, depth) => found ?? read.lineOf(keys.slice(0, depth + 1)), undefined);
      return { ...issue, path: within.replace(/^\./u, ''), line: line ?? 1 };
    });
}
