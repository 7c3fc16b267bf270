import { INTENT_WORDS, intentOf } from '@jubb/book';
import type { Part, Step } from '@jubb/sheet';
import type { ReactElement } from 'react';
import Button from 'react-bootstrap/Button';
import { useHere } from '../../job/use-job.ts';

/** Whether the part in hand is to be kept or may be spoilt: it changes how it comes off. */
export function Intent({ part, step }: { readonly part: Part; readonly step: Step }): ReactElement {
  const { state, keep } = useHere();
  const intent = intentOf(part, state.intents);
  const other = intent === 'keep' ? 'sacrifice' : 'keep';
  return (
    <span className="d-block">
      <span className={intent === 'keep' ? '' : 'brass'}>{INTENT_WORDS[intent]}</span>
      <Button variant="quiet" onClick={() => keep({ kind: 'intent', payload: { part: part.ref, intent: other }, step: step.ref })}>
        {other === 'keep' ? 'Keep it' : 'It may be spoilt'}
      </Button>
    </span>
  );
}
