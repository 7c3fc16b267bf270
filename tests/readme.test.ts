import { expect, test } from '@jest/globals';
import { sheetFileSchema } from '@jubb/sheet/file';
import { PROBLEMS } from '@jubb/wire';
import { Ajv2020 } from 'ajv/dist/2020.js';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath, pathToFileURL } from 'node:url';
import { spawnSync } from 'node:child_process';
import ts from 'typescript';
import { parse } from 'yaml';

const ROOT = fileURLToPath(new URL('..', import.meta.url));
const README = readFileSync(join(ROOT, 'README.md'), 'utf8');
const blocks = (language: string): readonly string[] =>
  [...README.matchAll(/^```(\w*)\n([\s\S]*?)^```/gmu)].flatMap(([, of, text = '']) => (of === language ? [text] : []));

const [WORKING = ''] = blocks('ts');
const PLACE = join(ROOT, 'packages/core/src/bearings/cord-pull.ts');

test('the working of the README compiles where it is said to lie', () => {
  const options: ts.CompilerOptions = {
    target: ts.ScriptTarget.ES2023,
    lib: ['lib.es2023.d.ts'],
    module: ts.ModuleKind.NodeNext,
    strict: true,
    noEmit: true,
    noUncheckedIndexedAccess: true,
    exactOptionalPropertyTypes: true,
    types: [],
  };
  const host = ts.createCompilerHost(options);
  const read = host.readFile.bind(host);
  host.readFile = (name) => (name === PLACE ? WORKING : read(name));
  const exists = host.fileExists.bind(host);
  host.fileExists = (name) => name === PLACE || exists(name);
  const problems = ts.getPreEmitDiagnostics(ts.createProgram([PLACE], options, host));
  expect(problems.map(({ messageText }) => ts.flattenDiagnosticMessageText(messageText, ' '))).toEqual([]);
});

test('it gives what its example says', () => {
  const folder = mkdtempSync(join(ROOT, 'packages/core/dist/readme-'));
  try {
    const { outputText } = ts.transpileModule(WORKING, {
      compilerOptions: { module: ts.ModuleKind.ESNext, target: ts.ScriptTarget.ES2023 },
    });
    writeFileSync(join(folder, 'cord-pull.mjs'), outputText);
    const asked = `const { cordPull } = await import(${JSON.stringify(pathToFileURL(join(folder, 'cord-pull.mjs')).href)});
      console.log(JSON.stringify(cordPull.run(cordPull.example)));`;
    const { stdout, stderr } = spawnSync(process.execPath, ['--input-type=module', '-e', asked], { encoding: 'utf8' });
    expect(stderr).toBe('');
    const figure = /Example: (\S+) N at (\S+) mm is (\S+) N·m/u.exec(WORKING)!;
    expect(JSON.parse(stdout)).toMatchObject({
      ok: true,
      run: { input: { pull: Number(figure[1]), radius: Number(figure[2]) }, output: { torque: Number(figure[3]) } },
    });
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
});

test('its lines of a sheet are what a sheet file may hold', () => {
  const ajv = new Ajv2020({ allErrors: true, strict: false, validateFormats: false });
  ajv.addSchema(sheetFileSchema(), 'sheet');
  const lines = blocks('yaml').flatMap((text) => Object.entries(parse(text) as Record<string, readonly object[]>));
  expect(lines.map(([list]) => list)).toEqual(['joints', 'fits', 'steps']);
  for (const [list, rows] of lines) {
    const check = ajv.compile({ $ref: `sheet#/properties/${list}` });
    expect(check(rows) || check.errors).toBe(true);
  }
});

test('CONTRIBUTING shows a kind of entry as it is', () => {
  const text = readFileSync(join(ROOT, 'CONTRIBUTING.md'), 'utf8');
  const [shown = ''] = [...text.matchAll(/^```ts\n([\s\S]*?)^```/gmu)].map(([, block]) => block);
  expect(shown).toBe(readFileSync(join(ROOT, 'packages/book/src/kinds/intent.ts'), 'utf8'));
});

test('the papers tell every refusal there is, as it is', () => {
  const rows = [...readFileSync(join(ROOT, 'docs/problems.md'), 'utf8').matchAll(/^\| `([\w-]+)`\s*\| (\d+)\s*\| (.+?)\s*\|$/gmu)];
  const told = Object.fromEntries(rows.map(([, code, status, title]) => [code, { status: Number(status), title }]));
  expect(told).toEqual(PROBLEMS);
});
