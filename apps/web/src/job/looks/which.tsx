import type { LookDue } from '@jubb/book';
import type { Step } from '@jubb/sheet';
import type { ReactElement } from 'react';
import Table from 'react-bootstrap/Table';
import { RecorderLayout, type Act } from '../recorder/layout.tsx';
import { useHere } from '../use-job.ts';

interface WhichRecorderProps {
  readonly step: Step;
  readonly look: Extract<LookDue, { readonly what: 'which' }>;
}

/** What tells the variants apart is in sight: which one it is. The one that the job goes by stands first, and is said to be it or not. */
export function WhichRecorder({ step, look: { variants } }: WhichRecorderProps): ReactElement {
  const { state, keep } = useHere();
  const goesBy = state.variant?.variant.ref;
  const here = [...variants.filter(({ ref }) => ref === goesBy), ...variants.filter(({ ref }) => ref !== goesBy)];
  const acts = here.map(({ ref, name, seen }, at): Act => ({
    label: name,
    ...(at === 0 ? {} : { key: `${at + 1}` }),
    run: () => keep({ kind: 'variant', payload: { variant: ref, seen }, step: step.ref }),
  }));
  const [primary, ...others] = acts;
  return (
    <RecorderLayout
      say={
        <>
          Now it can be seen.
          <br />
          Which one is it?
        </>
      }
      primary={primary}
      others={others}
    >
      <Table size="sm" className="mb-2 w-auto">
        <tbody>
          {here.map(({ ref, name, seen }) => (
            <tr key={ref}>
              <th scope="row">{name}</th>
              <td>{seen}</td>
            </tr>
          ))}
        </tbody>
      </Table>
      <p className="soft mb-0">{wordsOf(state.variant?.by)}</p>
    </RecorderLayout>
  );
}

/** How far the job goes by the first of them, and what saying another one does. */
function wordsOf(by: 'found' | 'booked' | 'nobody' | undefined): string {
  const known = by === 'booked' ? 'It was booked in as the first.' : 'Nobody has said so far; counts and figures are those of the first.';
  return `${known} Another one makes counts, figures and steps those of that one.`;
}
