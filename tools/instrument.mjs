// ./jubb instrument: a stand-in of a tool of the crib sends at the door that real instruments use
import { setTimeout as wait } from 'node:timers/promises';
import { parseArgs } from 'node:util';
import { logIn } from './demo-shop.mjs';
import { Stop, say } from './say.mjs';

const LINE_MS = 100;

const OPTIONS = {
  of: { type: 'string' },
  lines: { type: 'string', default: '1' },
  seed: { type: 'string', default: '1' },
  fault: { type: 'string', multiple: true, default: [] },
};

/** Sends as many readings of a size as asked, or one pull of a wrench; the same again from the same seed. */
export async function instrument(args) {
  const { FAULTS, StandIn, parseQuantity, standInFor } = await import('../packages/core/dist/index.js');
  const { positionals, values } = parseArgs({ args, options: OPTIONS, allowPositionals: true });
  const unknown = values.fault.find((fault) => !FAULTS.includes(fault));
  if (unknown) throw new Stop(`"${unknown}" is not a fault; there are: ${FAULTS.join(', ')}`);
  const base = `http://127.0.0.1:${process.env.JUBB_PORT ?? '4170'}`;
  const call = await logIn(base, 'ilka');
  const all = await call('GET', '/instruments');
  const found = all.find(({ tool }) => tool.tag === positionals[0]);
  if (!found) throw new Stop(`no instrument "${positionals[0] ?? ''}"; there are: ${all.map(({ tool }) => tool.tag).join(', ')}`);
  const { id, tool, clicks, last } = found;
  const read = parseQuantity(values.of ?? '', tool.quantity, 'of');
  if (!read.ok)
    throw new Stop(`--of is "${values.of ?? ''}"; a ${tool.quantity} with its unit is due, such as "${tool.high / 2} ${tool.unit}"`);
  const truth = read.quantity.base;
  const it = new StandIn(standInFor(tool, clicks), Number(values.seed), last?.n ?? 0);
  const send = async (line) => {
    const answer = await call('POST', `/instruments/${id}/lines`, JSON.stringify(line), 'application/x-ndjson');
    say(`${JSON.stringify(line)}${answer.refused.map(({ field, allowed }) => `  refused: ${field} ${allowed}`).join('')}`);
    await wait(LINE_MS);
  };
  if (tool.kind === 'torque-wrench') {
    for (const line of it.pull({ snug: truth / 10, stiffness: truth / 50, wanted: truth }, values.fault)) await send(line);
    return;
  }
  for (let count = 0; count < Number(values.lines); count += 1) await send(it.read(truth, LINE_MS / 1000, values.fault, true));
}
