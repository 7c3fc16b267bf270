// ./jubb test: every check and test, ending with one line that counts them all.
import { execFile, spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { startPostgres, stopPostgres } from './postgres.mjs';
import { remark, say } from './say.mjs';
import {
  CHROMIUM,
  DEBOOTSTRAP,
  IPROUTE,
  NSS_TOOLS,
  ROOT,
  checkMachine,
  ensureBuild,
  ensureDebian,
  ensureNodeModules,
  run,
} from './setup.mjs';

/** Two rows, each one after the other: lint takes as long as all the rest. */
const CHECKS = [
  [['lint', ['npx', 'eslint', '.', '--max-warnings', '0']]],
  [
    ['format', ['npx', 'prettier', '--check', '.']],
    ['layers', ['npm', '-s', 'run', 'layers']],
    ['types', ['npm', 'run', '--silent', 'types']],
    ['dead code', ['npx', 'knip']],
  ],
];

export async function test(args) {
  checkMachine();
  ensureNodeModules();
  ensureDebian([CHROMIUM, DEBOOTSTRAP, IPROUTE, NSS_TOOLS]);
  ensureBuild();
  const count = { passed: 0, failed: 0, skipped: 0 };
  // A path after `test` runs the tests under it alone.
  if (args.length === 0) await Promise.all(CHECKS.map((row) => checkAll(row, count)));

  const folder = mkdtempSync(join(tmpdir(), 'jubb-test-'));
  try {
    if (process.getuid?.() === 0) run('chmod', ['755', folder]);
    const { url } = await startPostgres(join(folder, 'postgres'));
    jest(url, folder, args, count);
  } finally {
    stopPostgres(join(folder, 'postgres'), 'immediate');
    rmSync(folder, { recursive: true, force: true });
  }
  say(`${count.passed} passed, ${count.failed} failed, ${count.skipped} skipped`);
  if (count.failed > 0) process.exitCode = 1;
}

async function checkAll(row, count) {
  for (const [name, command] of row) count[await check(name, command)] += 1;
}

function check(name, [command, ...args]) {
  return new Promise((resolve) => {
    execFile(command, args, { cwd: ROOT, encoding: 'utf8', maxBuffer: 1 << 28 }, (error, stdout, stderr) => {
      remark(`${error ? 'FAIL' : 'ok  '} ${name}`);
      if (error) remark(`${stdout}${stderr}`);
      resolve(error ? 'failed' : 'passed');
    });
  });
}

function jest(url, folder, args, count) {
  const results = join(folder, 'jest.json');
  const { status } = spawnSync('npx', ['jest', '--json', '--outputFile', results, '--silent=false', ...args], {
    cwd: ROOT,
    stdio: ['ignore', 'ignore', 'inherit'],
    env: {
      ...process.env,
      NODE_OPTIONS: '--experimental-vm-modules --no-warnings',
      JUBB_TEST_DATABASE_URL: url,
      JUBB_TEST_POSTGRES: join(folder, 'postgres'),
    },
  });
  if (!existsSync(results)) {
    count.failed += 1;
    return;
  }
  const report = JSON.parse(readFileSync(results, 'utf8'));
  count.passed += report.numPassedTests;
  count.failed += report.numFailedTests + report.numRuntimeErrorTestSuites;
  count.skipped += report.numPendingTests + report.numTodoTests;
  // Jest can fail for a reason it does not count, such as a worker that died.
  if (status !== 0 && count.failed === 0) count.failed += 1;
}
