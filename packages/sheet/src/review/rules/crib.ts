import type { SheetFile } from '../../model/file.js';
import { limitQuantity, limitWindow, settingQuantity, settingWindow } from '../../model/resolve.js';
import { type Tool, tooCoarse } from '../../tool.js';
import { finding, type Finding } from './rule.js';

/** Windows that no tool of the crib can judge: said while the sheet is written, not first at the bench. */
export function* cribCanTell(sheet: SheetFile, tools: readonly Tool[]): Iterable<Finding> {
  const mend = 'Name another kind of tool, read it more often, or get a finer one';
  for (const limit of sheet.limits) {
    if (limit.kind === 'look' || !limit.tool) continue;
    const toRead = { window: limitWindow(limit), quantity: limitQuantity(limit), kind: limit.tool, repeats: limit.repeats ?? 1 };
    const why = tooCoarse(toRead, tools);
    if (why !== undefined) yield finding('care', 'limits', sheet, limit.ref, 'tool', `${limit.name}: ${why}`, mend);
  }
  for (const setting of sheet.settings) {
    const toRead = { window: settingWindow(setting), quantity: settingQuantity(setting), kind: setting.tool, repeats: setting.repeats };
    const why = tooCoarse(toRead, tools);
    if (why !== undefined) yield finding('care', 'settings', sheet, setting.ref, 'tool', `${setting.name}: ${why}`, mend);
  }
}
