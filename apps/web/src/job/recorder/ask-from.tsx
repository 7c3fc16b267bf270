import type { ReactElement } from 'react';
import { useHere } from '../use-job.ts';
import { AskLine } from '../../kit/ask-line.tsx';

interface AskFromProps {
  /** "2 × Lip seal". */
  readonly what: string;
  readonly onFrom: (from: string) => void;
  readonly onClose: () => void;
}

/** New parts that no shelf gave: where they come from. */
export function AskFrom({ what, onFrom, onClose }: AskFromProps): ReactElement {
  const { job } = useHere();
  return (
    <AskLine
      about={`${job.id}.${what}`}
      title={`New: ${what}`}
      act="In hand"
      fields={() => [
        {
          name: 'from',
          label: 'Where it comes from',
          required: true,
          hint: 'Not out of stores: brought by the customer, over the counter.',
          longest: 200,
        },
      ]}
      onClose={onClose}
      onDone={({ from = '' }) => {
        onFrom(from);
        onClose();
      }}
    />
  );
}
