import { v7 as uuid } from 'uuid';

/** Readings scatter by themselves; what is compared or pictured does not. */
const steady = () => 0.5;

/** What the hub that is worked on really is. */
const UNIT = {
  limits: { 'end-float-found': 0.31, 'inner-journal': 34.979, 'outer-journal': 24.986 },
  looks: {},
  finding: 'Squeal mark on the backing plate, one wheel nut of another make',
  foundAt: 'hub nose',
  backedOff: 0.21,
  receivedBy: 'Ragna Ollwick',
  foreman: 'Oswin Tarrell',
};

/**
 * Lets the demo mechanic work at a job, over the API, until the next act is the wanted one. What somebody else has to look at is
 * said by `beside`.
 */
export async function workUntil(call, jobId, isThere, beside = call) {
  const { jobState, nextAct } = await import('../packages/book/dist/index.js');
  const { nextEntries } = await import('../packages/play/dist/index.js');
  const { sheet, tools, entries: kept } = await call('GET', `/jobs/${jobId}`);
  for (;;) {
    const state = jobState(sheet.file, kept);
    const act = nextAct(state);
    if (!act || isThere(act, state)) return;
    const takenAt = new Date().toISOString();
    const entries = nextEntries(state, { unit: UNIT, tools, random: steady, at: takenAt, today: takenAt.slice(0, 10) });
    const by = entries.some(({ kind }) => kind === 'hold-met') ? beside : call;
    kept.push(...(await by('POST', `/jobs/${jobId}/entries`, { entries: entries.map((entry) => ({ ...entry, id: uuid(), takenAt })) })));
  }
}

/** Books in a hub of the demo's own sheet, to measure at; gives the job's id. */
export async function bookHub(call, name) {
  const { revisionId } = (await call('GET', '/sheets')).find(({ key }) => key === 'harrowmere-th6-front-hub');
  const id = uuid();
  await call('POST', '/jobs', {
    id,
    customer: { name },
    machine: { name: 'Tractor', serial: `M-${id.slice(-6)}` },
    unit: { name: 'Left front hub', serial: `U-${id.slice(-6)}` },
    sheetRevisionId: revisionId,
    complaint: 'For measuring.',
    promise: new Date(Date.now() + 1e8).toISOString(),
    estimateMinor: 10_000,
  });
  return id;
}
