import { readFileSync } from 'node:fs';
import { Stop, say } from './say.mjs';
import { ensureBuild, ensureNodeModules } from './setup.mjs';

/** ./jubb sheet check FILE …: what the checker says of sheet files, and what is found when every way through them is played. */
export async function sheet([what, ...files]) {
  if (what !== 'check' || files.length === 0) throw new Stop('"./jubb sheet check FILE …" checks sheet files, JSON or YAML');
  ensureNodeModules();
  ensureBuild();
  const { readSheetFile, reviewSheet } = await import('../packages/sheet/dist/editing/index.js');
  const { checkByPlay } = await import('../packages/play/dist/index.js');
  let faults = 0;
  let ways = 0;
  for (const file of files) {
    const found = checked(file, { readSheetFile, reviewSheet, checkByPlay });
    ways += found.ways;
    faults += found.lines.length;
    say(
      `${file}: ${found.lines.length === 0 ? `sound, ${found.ways} ways through it played to the end` : `${found.lines.length} to mend`}`,
    );
    for (const line of found.lines) say(`  ${line}`);
  }
  say(`${files.length} ${files.length === 1 ? 'sheet' : 'sheets'}, ${ways} ways played, ${faults} to mend`);
  if (faults > 0) process.exitCode = 1;
}

/** Notes say what a foreman may still look at; they are no faults. */
function checked(file, { readSheetFile, reviewSheet, checkByPlay }) {
  const read = readSheetFile(textOf(file));
  if (!read.ok) {
    const at = ({ line }) => (line === undefined ? '' : `line ${line}: `);
    return { ways: 0, lines: read.issues.map((issue) => `stop  ${at(issue)}${issue.path} ${issue.message}`) };
  }
  const review = reviewSheet(read.sheet)
    .findings.filter(({ severity }) => severity !== 'note')
    .map(({ severity, say: words, mend }) => `${severity.padEnd(5)} ${words}. ${mend}`);
  // What does not hold together cannot be played.
  if (review.some((line) => line.startsWith('stop'))) return { ways: 0, lines: review };
  const { routes, findings } = checkByPlay(read.sheet, (done, of) => {
    if (process.stderr.isTTY) process.stderr.write(`\r${done} of ${of} ways${done === of ? '\r\x1b[K' : ''}`);
  });
  return {
    ways: routes,
    lines: [...review, ...findings.map(({ severity, say: words, on, mend }) => `${severity.padEnd(5)} ${words} (${on}). ${mend}`)],
  };
}

function textOf(file) {
  try {
    return readFileSync(file, 'utf8');
  } catch {
    throw new Stop(`There is no file ${file}`);
  }
}
