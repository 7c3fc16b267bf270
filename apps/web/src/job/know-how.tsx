import { proposedFor } from '@jubb/book';
import { baseRef, type Step } from '@jubb/sheet';
import { ENDPOINTS, type KnowHow } from '@jubb/wire';
import { useQuery } from '@tanstack/react-query';
import { useState, type ReactElement } from 'react';
import Button from 'react-bootstrap/Button';
import { Clip, Picture } from '../capture/picture.tsx';
import { dayWords, dayOf } from '../kit/days.ts';
import { Dialog } from '../kit/dialog.ts';
import { KEYMAP } from '../kit/keymap.ts';
import { useKeys } from '../kit/keys.ts';
import { ask } from '../link/client.ts';
import { jobKey } from '../link/queries.ts';
import { isTrial } from './trial-id.ts';
import { useHere } from './use-job.ts';

const MOST_SHOWN = 12;

/** What others kept at this step of this model, the newest first; it changes seldom, and is there without a link. */
function useKnowHow(step: Step): readonly KnowHow[] {
  const { job } = useHere();
  const { data = [] } = useQuery({
    enabled: !isTrial(job.id),
    queryKey: [...jobKey(job.id), 'know-how'],
    staleTime: 600_000,
    queryFn: () => ask(ENDPOINTS.jobs.knowHow, { id: job.id }),
  });
  return data.filter((one) => one.step === baseRef(step));
}

/** One key away at the step: notes, clips and photos of colleagues, and into the sheet with what is worth it. */
export function KnowHowAt({ step }: { readonly step: Step }): ReactElement | null {
  const known = useKnowHow(step);
  const [isOpen, setOpen] = useState(false);
  useKeys({ 'know-how': known.length > 0 ? () => setOpen(true) : undefined });
  if (known.length === 0) return null;
  return (
    <>
      <p className="mb-1">
        <Button variant="quiet" className="p-0" onClick={() => setOpen(true)}>
          Kept at this step before: {known.length} <kbd className="hide-narrow">{KEYMAP['know-how'].shown}</kbd>
        </Button>
      </p>
      <Dialog
        show={isOpen}
        centered
        scrollable
        size="lg"
        animation={false}
        onHide={() => setOpen(false)}
        aria-labelledby="know-how"
        restoreFocus
      >
        <Dialog.Header closeButton>
          <h2 id="know-how" className="mb-0">
            Kept at this step before
          </h2>
        </Dialog.Header>
        <Dialog.Body>
          <p className="soft mb-2">{step.title}. Each is what somebody met on one unit: no figure of the sheet.</p>
          <ul className="list-unstyled mb-0">
            {known.slice(0, MOST_SHOWN).map((one) => (
              <li key={one.id} className="mb-3">
                <Kept step={step} one={one} />
              </li>
            ))}
          </ul>
          {known.length > MOST_SHOWN ? <p className="soft mb-0">And {known.length - MOST_SHOWN} older.</p> : null}
        </Dialog.Body>
      </Dialog>
    </>
  );
}

function Kept({ step, one }: { readonly step: Step; readonly one: KnowHow }): ReactElement {
  const { kept, jobNumber, person, at } = one;
  const { sheet, state, keep } = useHere();
  const words = wordsOf(one);
  const text = `${words ?? ''} (job ${jobNumber}, ${person})`;
  const isProposed = state.live.some((entry) => entry.kind === 'next-time' && entry.payload.text === text);
  const propose = (): void => keep({ kind: 'next-time', payload: { text, ...proposedFor(sheet, step) }, step: step.ref });
  return (
    <>
      <p className="mb-1">{words}</p>
      {one.made ? <MadeHere one={one} made={one.made} /> : null}
      {kept.kind === 'photo' ? (
        <Picture file={kept.payload.file} words={words ?? step.title} width={kept.payload.width} height={kept.payload.height} />
      ) : null}
      {kept.kind === 'clip' ? <Clip file={kept.payload.file} sort={kept.payload.sort} words={kept.payload.words} /> : null}
      <p className="soft mb-0">
        {person}, {dayWords(dayOf(at))}, job {jobNumber}.{' '}
        {kept.kind === 'photo' || kept.kind === 'tool-made' || state.handedOver ? null : isProposed ? (
          'It waits at the sheet.'
        ) : (
          <Button variant="quiet" className="p-0" onClick={propose}>
            Propose it for the sheet
          </Button>
        )}
      </p>
    </>
  );
}

function wordsOf({ kept }: KnowHow): string | undefined {
  switch (kept.kind) {
    case 'note':
      return kept.payload.text;
    case 'tool-made': {
      const { name, use, sizes, load } = kept.payload;
      return [`${name}: ${use}`, sizes, load === undefined ? undefined : `held ${load} kN`].filter(Boolean).join('; ');
    }
    default:
      return kept.payload.words;
  }
}

interface MadeHereProps {
  readonly one: KnowHow;
  readonly made: NonNullable<KnowHow['made']>;
}

/** A tool that was made for this step: what it looks like, and whether it serves here too. */
function MadeHere({ one: { id, kept }, made: { pictures, served, failed } }: MadeHereProps): ReactElement | null {
  const { state, keep } = useHere();
  if (kept.kind !== 'tool-made') return null;
  const { name } = kept.payload;
  const said = state.live.findLast((entry) => entry.kind === 'tool-served' && entry.payload.tool === id);
  const say = (how: 'served' | 'did not serve'): void => keep({ kind: 'tool-served', payload: { tool: id, name, how } });
  return (
    <>
      {pictures.map(({ file, width, height, words }) => (
        <Picture key={file} file={file} words={words ?? name} width={width} height={height} />
      ))}
      <p className="mb-1">
        <span className="soft">
          Made in this shop.{' '}
          {served + failed === 0
            ? 'Nobody used it again yet.'
            : `It served ${served} more ${served === 1 ? 'time' : 'times'}${failed > 0 ? `, and did not ${failed}` : ''}.`}
        </span>{' '}
        {said?.kind === 'tool-served' ? (
          <b>Here it {said.payload.how}.</b>
        ) : state.handedOver ? null : (
          <>
            <Button variant="plain" onClick={() => say('served')}>
              It serves here too
            </Button>{' '}
            <Button variant="quiet" onClick={() => say('did not serve')}>
              It does not
            </Button>
          </>
        )}
      </p>
    </>
  );
}
