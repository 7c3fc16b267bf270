import type { JobState } from '@jubb/book';
import type { Step } from '@jubb/sheet';

const FOUND: Readonly<Record<string, string>> = {
  ...{ 'end-float-found': '0.31', 'inner-journal': '34.982', 'outer-journal': '24.986' },
  ...{ 'sensor-gap': '0.6', 'hub-warmth': '38' },
};

/** What is to be read at a step, as the hub on the bench has it; nothing where none is. */
export function hubFigure({ record }: Step, { settings }: JobState): string | undefined {
  if (record.kind === 'reading') return FOUND[record.limit ?? ''];
  if (record.kind === 'fluid') return '182';
  if (record.kind === 'seal') return '0.21';
  // 0.21 mm after backing off; the slot that locks it leaves 0.067 mm.
  if (record.kind === 'setting') return settings[0]?.phase === 'read' ? '0.21' : '0.067';
  return record.kind === 'proof' ? '0.067' : undefined;
}
