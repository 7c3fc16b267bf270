import { v7 as uuid } from 'uuid';

/** Readings scatter by themselves; what is compared or pictured does not. */
const steady = () => 0.5;

/** What the hub that is worked on really is. */
const UNIT = {
  limits: { 'end-float-found': 0.31, 'inner-journal': 34.979, 'outer-journal': 24.986 },
  looks: {},
  finding: 'Squeal mark on the backing plate, one wheel nut of another make',
  backedOff: 0.21,
  receivedBy: 'Ragna Ollwick',
  foreman: 'Oswin Tarrell',
};

/** Lets the demo mechanic work at a job, over the API, until the next act is the wanted one. */
export async function workUntil(call, jobId, isThere) {
  const { jobState, nextAct } = await import('../packages/contract/dist/job/index.js');
  const { nextEntries } = await import('../apps/server/dist/demo/demo-mechanic.js');
  for (;;) {
    const job = await call('GET', `/jobs/${jobId}`);
    const sheet = job.sheet.file;
    const state = jobState(sheet, job.entries);
    const act = nextAct(state);
    if (!act || isThere(act, state)) return;
    const entries = nextEntries(sheet, state, UNIT, job.tools, steady);
    const takenAt = new Date().toISOString();
    await call('POST', `/jobs/${jobId}/entries`, { entries: entries.map((entry) => ({ ...entry, id: uuid(), takenAt })) });
  }
}
