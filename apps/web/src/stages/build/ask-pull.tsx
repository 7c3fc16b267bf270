import type { JointRun } from '@jubb/book';
import type { ReactElement } from 'react';
import { useHere } from '../../job/use-job.ts';
import { AskLine, type Answers } from '../../kit/ask-line.tsx';

interface AskPullProps {
  readonly run: JointRun;
  /** Without one nothing was pulled by a figure. */
  readonly hasWrench: boolean;
  readonly onClose: () => void;
  readonly onDone: (answers: Answers) => void;
}

const NOT_PLANNED = [
  ['trouble', 'Something is wrong with it'],
  ['other', 'Another one was pulled'],
  ['hand', 'No wrench reaches it'],
] as const;

/** What a pull was that was not as planned: trouble with the fastener, one out of its turn, one by hand. */
export function AskPull({ run: { joint, next, numbers }, hasWrench, onClose, onDone }: AskPullProps): ReactElement {
  const { job } = useHere();
  const due = next ? numbers[next.place] : undefined;
  const others = numbers.toSorted((a, b) => a - b).filter((number) => number !== due);
  return (
    <AskLine
      about={`${job.id}.${joint.ref}`}
      title={`Number ${due ?? ''}: what is wrong?`}
      act="Keep it"
      choice={{
        name: 'what',
        label: 'What it was',
        options: NOT_PLANNED.filter(([what]) => what !== 'other' || (hasWrench && others.length > 0)),
        optional: true,
      }}
      fields={({ what = 'trouble' }) => [
        what === 'other'
          ? {
              name: 'number',
              label: 'Its number on the plate',
              required: true,
              initial: String(others[0] ?? ''),
              options: others.map((number) => [String(number), String(number)] as const),
            }
          : {
              name: 'note',
              label: what === 'hand' ? 'Why no wrench reaches it' : 'Turns without load, stops early, thread damaged …',
              required: true,
              longest: 300,
              ...(what === 'hand' ? { hint: 'It is printed as "by hand, unmeasured", with this.' } : {}),
            },
      ]}
      onClose={onClose}
      onDone={onDone}
    />
  );
}
