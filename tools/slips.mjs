import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { say } from './say.mjs';
import { ROOT, ensureBuild } from './setup.mjs';

/** Clean plays, each with figures of its own: none of them is to be stopped. */
const CLEAN_PLAYS = 1000;
const WITHIN = 2;

/** One mistake at a time on every sheet of the demo, in each of its variants: what is seen, by what, how soon; written to docs/slips.md. */
export async function slips() {
  ensureBuild();
  const { cleanPlays, cribToPlay, sheetsToPlay, slipsOn } = await import('../apps/server/dist/demo/slips/slips.js');
  const tools = cribToPlay();
  const sheets = sheetsToPlay();
  const kinds = new Map();
  const bySheet = [];
  for (const [name, sheet] of sheets) {
    const row = { name, possible: 0, caught: 0, soon: 0 };
    for (const [slip, outcome] of slipsOn(sheet, tools)) {
      const kind = kinds.get(slip.id) ?? { slip, possible: 0, caught: 0, soon: 0, by: new Map() };
      kinds.set(slip.id, kind);
      if (outcome === 'not possible') continue;
      for (const sum of [row, kind]) sum.possible += 1;
      if (outcome === 'passed') continue;
      for (const sum of [row, kind]) {
        sum.caught += 1;
        if (outcome.later <= WITHIN) sum.soon += 1;
      }
      kind.by.set(outcome.by, (kind.by.get(outcome.by) ?? 0) + 1);
    }
    bySheet.push(row);
    say(`${name.padEnd(52)} ${row.caught} of ${row.possible}`);
  }
  const alarms = cleanPlays(sheets, tools, CLEAN_PLAYS);
  const all = bySheet.reduce(
    (sum, { possible, caught, soon }) => ({ possible: sum.possible + possible, caught: sum.caught + caught, soon: sum.soon + soon }),
    {
      possible: 0,
      caught: 0,
      soon: 0,
    },
  );
  const share = (part, of) => (of === 0 ? '' : `${((100 * part) / of).toFixed(0)} %`);
  const summary = `${kinds.size} kinds on ${sheets.length} sheets and variants: ${all.possible} mistakes, ${((100 * all.caught) / all.possible).toFixed(1)} % seen before the hand-over, ${((100 * all.soon) / all.possible).toFixed(1)} % within ${WITHIN} acts; ${alarms.length} false alarms on ${CLEAN_PLAYS} clean plays`;
  const lines = [
    '# Slips',
    '',
    'One mistake at a time, as a bench makes it, on every sheet of the demo in each of its variants: played by the demo mechanic against the rules that the server holds. Made by `./jubb slips`; a new kind is one entry of `apps/server/src/demo/slips/catalogue.ts`.',
    '',
    `${summary}.`,
    '',
    '| mistake | possible on | seen | within two acts | by |',
    '| --- | ---: | ---: | ---: | --- |',
    ...[...kinds.values()].map(
      ({ slip, possible, caught, soon, by }) =>
        `| ${slip.words} | ${possible} | ${share(caught, possible)} | ${share(soon, possible)} | ${[...by].map(([seen, count]) => `${seen} ${count}`).join(', ')} |`,
    ),
    '',
    '## What is not seen everywhere, and why',
    '',
    ...[...kinds.values()]
      .filter(({ slip }) => slip.passes)
      .map(({ slip, possible, caught }) => `- **${slip.words}** (${possible - caught} of ${possible} pass): ${slip.passes}.`),
    '',
    '## By sheet',
    '',
    '| sheet, variant | possible | seen | within two acts |',
    '| --- | ---: | ---: | ---: |',
    ...bySheet.map(
      ({ name, possible, caught, soon }) => `| ${name} | ${possible} | ${share(caught, possible)} | ${share(soon, possible)} |`,
    ),
    '',
  ];
  const file = join(ROOT, 'docs/slips.md');
  const { format, resolveConfig } = await import('prettier');
  writeFileSync(file, await format(lines.join('\n'), { ...(await resolveConfig(file)), parser: 'markdown' }));
  for (const alarm of alarms.slice(0, 5)) say(`false alarm: ${alarm}`);
  say(summary);
}
