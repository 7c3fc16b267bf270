import { ENDPOINTS } from '@jubb/wire';
import type { ReactElement } from 'react';
import Dropdown from 'react-bootstrap/Dropdown';
import { useHere } from '../../job/use-job.ts';
import { offerUndo } from '../../kit/undo.ts';
import { Wrong } from '../../kit/pieces.tsx';
import { useSend } from '../../kit/use-send.ts';
import { ask } from '../../link/client.ts';
import { queryClient, useBenches } from '../../link/queries.ts';

/** At which bench the unit stands, for whoever looks for it. */
export function StandsAt(): ReactElement | null {
  const { job, state } = useHere();
  const { data: benches = [] } = useBenches();
  const { busy, error, send } = useSend();
  if (benches.length === 0 || state.handedOver) return null;
  const at = benches.find(({ jobs }) => jobs.some(({ id }) => id === job.id))?.id ?? '';
  const put = async (benchId: string): Promise<void> => {
    const now = await ask(ENDPOINTS.benches.stand, { id: job.id, body: { benchId: benchId === '' ? null : benchId } });
    queryClient.setQueryData(['benches'], now);
  };
  const pick = (benchId: string): void =>
    void send(async () => {
      await put(benchId);
      const to = benches.find(({ id }) => id === benchId);
      offerUndo(to ? `Job ${job.number} stands at ${to.name}` : `Job ${job.number} is off the bench`, () => put(at));
    });
  const stands = benches.find(({ id }) => id === at)?.name ?? 'no bench';
  return (
    <>
      {' '}
      <Dropdown as="span">
        <Dropdown.Toggle variant="quiet" className="p-0" disabled={busy}>
          Stands at: {stands}
        </Dropdown.Toggle>
        <Dropdown.Menu>
          {benches.map(({ id, name, jobs }) => {
            const others = jobs.filter((one) => one.id !== job.id);
            return (
              <Dropdown.Item key={id} as="button" type="button" className="py-2" active={id === at} onClick={() => pick(id)}>
                {name}
                {others.length === 0 ? null : <span className="soft">, with job {others.map(({ number }) => number).join(', ')}</span>}
              </Dropdown.Item>
            );
          })}
          {at === '' ? null : (
            <Dropdown.Item as="button" type="button" className="py-2" onClick={() => pick('')}>
              Off the bench
            </Dropdown.Item>
          )}
        </Dropdown.Menu>
      </Dropdown>
      <Wrong error={error} />
    </>
  );
}
