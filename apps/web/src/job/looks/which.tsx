import type { LookDue, Shown } from '@jubb/book';
import type { Step } from '@jubb/sheet';
import type { ReactElement } from 'react';
import Table from 'react-bootstrap/Table';
import { RecorderLayout, type Act } from '../recorder/layout.tsx';
import { useHere } from '../use-job.ts';

interface WhichRecorderProps {
  readonly step: Step;
  readonly look: Extract<LookDue, { readonly what: 'which' }>;
}

/** What tells the variants apart is in sight: which one it is. One that was booked in stands first; where nobody knows, none does. */
export function WhichRecorder({ step, look: { variants } }: WhichRecorderProps): ReactElement {
  const { state, keep } = useHere();
  const goesBy = variants.find(({ ref }) => ref === state.variant?.variant.ref);
  const isBooked = state.variant?.by === 'booked';
  const says = ({ ref, name, seen }: Shown): Act => ({
    label: name,
    run: () => keep({ kind: 'variant', payload: { variant: ref, seen }, step: step.ref }),
  });
  const primary = isBooked && goesBy ? { ...says(goesBy), label: `${goesBy.name}, as booked in` } : undefined;
  const others = variants.flatMap((one, at) => (primary && one === goesBy ? [] : [{ ...says(one), key: `${at + 1}` as const }]));
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
          {variants.map(({ ref, name, seen }) => (
            <tr key={ref}>
              <th scope="row">{name}</th>
              <td>{seen}</td>
            </tr>
          ))}
        </tbody>
      </Table>
      <p className="soft mb-0">
        {isBooked ? 'It was booked in as' : 'Nobody has said so far; counts and figures are those of'} {goesBy?.name}.
      </p>
    </RecorderLayout>
  );
}
