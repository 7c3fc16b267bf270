import { sightName, type LookDue } from '@jubb/book';
import { partName, type SheetFile, type Step } from '@jubb/sheet';
import type { ReactElement, ReactNode } from 'react';
import type { Draft } from '../../link/store.ts';
import { Pictures } from '../pictures.tsx';
import { RecorderLayout, type Act } from '../recorder/layout.tsx';
import { useHere } from '../use-job.ts';
import { ApartRecorder } from './apart.tsx';
import { ExpectedRecorder } from './expected.tsx';
import { SealSightRecorder } from './seal-sight.tsx';
import { WhichRecorder } from './which.tsx';

interface LooksRecorderProps {
  readonly step: Step;
  readonly looks: readonly [LookDue, ...LookDue[]];
}

/** What is looked at once a step is done, one after the other: home, the right way round, in line, as expected. */
export function LooksRecorder({ step, looks: [look, ...then] }: LooksRecorderProps): ReactElement {
  const { sheet, keep } = useHere();
  if (look.what === 'which') return <WhichRecorder step={step} look={look} />;
  if (look.what === 'apart') return <ApartRecorder key={look.fit.ref} step={step} fit={look.fit} />;
  if (look.what === 'seal') return <SealSightRecorder key={look.sight} step={step} due={look} />;
  if (look.what === 'expected') return <ExpectedRecorder step={step} look={look} />;
  const said = (draft: Pick<Draft, 'kind' | 'payload'>): void => keep({ ...draft, step: step.ref });
  const { about, say, acts } = asked(look, sheet, said);
  const [primary, ...others] = acts;
  return (
    <RecorderLayout
      say={
        <>
          {about}
          <br />
          {say}
        </>
      }
      primary={primary}
      others={others}
    >
      {look.what === 'mark' ? <Pictures of={(entry) => entry.kind === 'photo' && entry.payload.of === look.mark.entryId} /> : null}
      {then.length > 0 ? <p className="soft mb-0">Then: {then.map((next) => nameOf(next, sheet)).join('; ')}</p> : null}
    </RecorderLayout>
  );
}

interface Asked {
  readonly about: string;
  readonly say: ReactNode;
  readonly acts: readonly [Act, ...Act[]];
}

function asked(
  look: Exclude<LookDue, { readonly what: 'expected' | 'apart' | 'which' | 'seal' }>,
  sheet: SheetFile,
  keep: (draft: Pick<Draft, 'kind' | 'payload'>) => void,
): Asked {
  switch (look.what) {
    case 'seated': {
      const { ref, name, count, seated, tool } = look.fastening;
      const left = count - look.seen;
      const home = (pieces: number): void => keep({ kind: 'seated', payload: { fastening: ref, count: pieces } });
      const one: Act = { label: count === 1 ? 'It is home' : `This one is home (${look.seen + 1} of ${count})`, run: () => home(1) };
      return {
        about: `${count === 1 ? name : `${name}: ${count} of them, each by itself`}${tool === undefined ? '' : ` · ${tool}`}`,
        say: (
          <>
            Home when: <b>{seated}</b>
          </>
        ),
        acts: left > 1 ? [one, { label: `All ${left} that are left`, key: 'a', run: () => home(left) }] : [one],
      };
    }
    case 'way-round':
      return {
        about: `${partName(sheet, look.part)} goes in one way only`,
        say: (
          <>
            It must lie: <b>{look.lies}</b>
          </>
        ),
        acts: [{ label: 'It lies so', run: () => keep({ kind: 'way-round', payload: { part: look.part, lies: look.lies } }) }],
      };
    case 'mark':
      return {
        about: `Marked when it came off: ${look.mark.what}`,
        say: (
          <>
            Lines up again: <b>{look.mark.mark}</b>
          </>
        ),
        acts: [{ label: 'It lines up', run: () => keep({ kind: 'mark-met', payload: { mark: look.mark.entryId } }) }],
      };
  }
}

function nameOf(look: LookDue, sheet: SheetFile): string {
  switch (look.what) {
    case 'seated':
      return `${look.fastening.name}, home`;
    case 'way-round':
      return `${partName(sheet, look.part)}, which way`;
    case 'which':
      return 'which one it is';
    case 'apart':
      return `${look.fit.name}, how it came apart`;
    case 'mark':
      return `mark, ${look.mark.what}`;
    case 'seal':
      return sightName(look.seal, look.sight);
    case 'expected':
      return 'as expected, or not';
  }
}
