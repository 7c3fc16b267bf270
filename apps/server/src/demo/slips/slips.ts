import { scopeSheet, type SheetFile, type Tool } from '@jubb/sheet';
import { readSheetFile } from '@jubb/sheet/editing';
import { readFileSync, readdirSync } from 'node:fs';
import { demoTools, moreTools } from '../demo-crib.js';
import type { DemoUnit } from '@jubb/play';
import { CATALOGUE } from './catalogue.js';
import type { Slip } from './slip.js';
import { SlipPlay, type Outcome } from './slip-play.js';

const FOLDER = new URL('../../../demo/sheets/', import.meta.url);
const SOUND: DemoUnit = {
  limits: {},
  looks: {},
  finding: 'Nothing to be seen',
  backedOff: 0.2,
  receivedBy: 'Somebody',
  foreman: 'Oswin Tarrell',
};

/** The demo's sheets, each as a job has it: whole, in each of its variants. */
export function sheetsToPlay(isIt: (name: string) => boolean = () => true): readonly (readonly [name: string, sheet: SheetFile])[] {
  return readdirSync(FOLDER)
    .filter(isIt)
    .flatMap((name) => {
      const read = readSheetFile(readFileSync(new URL(name, FOLDER), 'utf8'));
      if (!read.ok) throw new Error(`${name}: ${JSON.stringify(read.issues[0])}`);
      const variants = read.sheet.variants?.map(({ ref }) => ref) ?? [undefined];
      return variants.map((variant) => {
        const { file } = scopeSheet(read.sheet, variant === undefined ? {} : { variant });
        return [variant === undefined ? name : `${name}, ${variant}`, file] as const;
      });
    });
}

export function cribToPlay(): readonly Tool[] {
  return [...demoTools(), ...moreTools()].map((tool): Tool => ({ ...tool, id: tool.tag, calibrationDue: null }));
}

/** What became of every kind of mistake on one sheet. */
export function slipsOn(sheet: SheetFile, tools: readonly Tool[]): readonly (readonly [slip: Slip, outcome: Outcome])[] {
  const play = new SlipPlay(sheet, SOUND, tools);
  return CATALOGUE.map((slip) => [slip, play.outcome(slip)] as const);
}

/** Jobs where nothing goes wrong, each with readings of its own: what the server had against them. */
export function cleanPlays(
  sheets: readonly (readonly [name: string, sheet: SheetFile])[],
  tools: readonly Tool[],
  plays: number,
): readonly string[] {
  return Array.from({ length: plays }, (_, seed) => seed).flatMap((seed) => {
    const [name, sheet] = sheets[seed % sheets.length]!;
    const alarm = new SlipPlay(sheet, SOUND, tools, seed).alarm();
    return alarm === 'passed' ? [] : [`${name}, ${seed}: ${alarm === 'not possible' ? alarm : alarm.words}`];
  });
}
