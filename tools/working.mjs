// npm run -s working -- list | describe <id> | run <id> '<json>'
import { execFileSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { fileURLToPath } from 'node:url';

const root = fileURLToPath(new URL('..', import.meta.url));
const entry = new URL('../packages/core/dist/index.js', import.meta.url);
if (!existsSync(entry)) execFileSync('npx', ['tsc', '-b', 'packages/core'], { cwd: root, stdio: ['ignore', 2, 2] });
const { workings, wording } = await import(entry.href);

const [command, id, json] = process.argv.slice(2);
const print = (value) => process.stdout.write(`${JSON.stringify(value, null, 2)}\n`);
const refuse = (field, message, rest = {}) => {
  print({ error: { field, message, ...rest } });
  process.exit(2);
};

if (command === 'list') {
  print(workings.list().map(({ id, title, area }) => ({ id, title, area })));
} else if (command === 'describe') {
  print(workings.describe(id) ?? refuse('id', unknown(id)));
} else if (command === 'run') {
  run();
} else {
  refuse('command', `"${command ?? ''}" is not a command; use list, describe <id> or run <id> '<json>'`);
}

function run() {
  if (!workings.describe(id)) refuse('id', unknown(id));
  let input;
  try {
    input = JSON.parse(json ?? '{}');
  } catch (error) {
    refuse('input', `is not JSON: ${error.message}`);
  }
  const result = workings.run(id, input);
  if (result.ok) print(result.run);
  else {
    const problems = result.issues.map((issue) => ({ field: issue.field, message: wording(issue), code: issue.code }));
    refuse(problems[0].field, problems[0].message, { issues: problems });
  }
}

function unknown(name) {
  return `"${name ?? ''}" is not a working; list names them`;
}
