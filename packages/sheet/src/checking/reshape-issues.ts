import { validated, type FieldIssue } from '../given/validation.js';
import type { ReshapedList } from '../model/choices.js';
import { Fastening, Fit, Fluid, Joint, Limit, Part, Seal, Setting, Several, Step, type SheetFile } from '../model/file.js';
import { LIST_NAMES, SHEET_LISTS, lineName, rowsOf, type Line } from '../model/lists.js';
import { find } from '../model/resolve.js';
import { reshaped, reshapes, reshapings } from '../model/reshape.js';
import { checkSheet } from './check.js';

const LINE_CLASSES: Readonly<Record<ReshapedList, new () => object>> = {
  several: Several,
  parts: Part,
  joints: Joint,
  fastenings: Fastening,
  settings: Setting,
  fits: Fit,
  seals: Seal,
  limits: Limit,
  fluids: Fluid,
  steps: Step,
};

/** What is wrong with a sheet once a variant or a way has made of it what it says; for a sheet that is sound without them. */
export function reshapeIssues(sheet: SheetFile): readonly FieldIssue[] {
  return reshapings(sheet)
    .filter(({ of }) => reshapes(of))
    .flatMap(({ path, chosen, of: { name, changes = [], brings = [], drops = [] } }): readonly FieldIssue[] => {
      const both = brings.findIndex((ref) => drops.includes(ref));
      if (both >= 0) return [{ path: `${path}.brings[${both}]`, given: brings[both]!, message: 'is brought and dropped at once' }];
      const loose = changes.findIndex(({ list, line }) => !rowsOf(sheet, list).some(({ ref }) => ref === line));
      if (loose >= 0) return [loosePointer(`${path}.changes[${loose}].line`, changes[loose]!.line, changes[loose]!.list)];
      const made = reshaped(sheet, chosen);
      const shape = changes.flatMap(({ list, line, is }, index): readonly FieldIssue[] => {
        const at = find<Line>(rowsOf(made, list), line);
        const before = find<Line>(rowsOf(sheet, list), line);
        if (!at) return [];
        if (JSON.stringify(at) === JSON.stringify(before))
          return [
            {
              path: `${path}.changes[${index}].field`,
              given: changes[index]!.field,
              message: 'changes nothing: the line says so already, or has no such field',
            },
          ];
        const strange = unknownName(at, before);
        if (strange !== undefined)
          return [
            {
              path: `${path}.changes[${index}].is`,
              given: strange,
              message: 'is none of them: the line itself names the most there may be, a variant those of them that it has',
            },
          ];
        const [first] = validated(LINE_CLASSES[list], at).issues;
        return first ? [{ path: `${path}.changes[${index}].is`, given: is ?? '', message: `makes ${first.path}: ${first.message}` }] : [];
      });
      if (shape.length > 0) return shape;
      // What else there would be to choose may speak of what is not there with this.
      const [first] = checkSheet(made).filter((issue) => !/\.(?:brings|drops|changes)\[/u.test(issue.path));
      return first ? [{ path, given: name, message: `does not hold together: ${placed(made, first.path)} ${first.message}` }] : [];
    });
}

/** One of several that the sheet does not know of. */
function unknownName(
  at: Line & { readonly names?: readonly string[] },
  before: (Line & { readonly names?: readonly string[] }) | undefined,
): string | undefined {
  return at.names?.find((name) => !before?.names?.includes(name));
}

/** "seals[3].depth.to" by the name of its line: “Seals, Input seal, depth.to”. */
function placed(sheet: SheetFile, path: string): string {
  const { name, index, rest } = /^(?<name>\w+)\[(?<index>\d+)\]\.?(?<rest>.*)$/u.exec(path)?.groups ?? {};
  const list = SHEET_LISTS.find((one) => one === name);
  const line = list && rowsOf(sheet, list)[Number(index)];
  return list && line ? [LIST_NAMES[list], lineName(line), rest].filter(Boolean).join(', ') : path;
}

function loosePointer(path: string, line: string, list: ReshapedList): FieldIssue {
  return { path, given: line, message: `is no line of the ${list}` };
}
