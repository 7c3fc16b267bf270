import { ladderAt } from '@jubb/book';
import { partName, type Step } from '@jubb/sheet';
import type { ReactElement } from 'react';
import { Dialog } from '../../kit/dialog.ts';
import { LineField } from '../../kit/line-field.tsx';
import { useDraft } from '../../kit/prefs.ts';
import { useHere } from '../use-job.ts';
import { Rungs } from './rungs.tsx';

interface StuckProps {
  readonly step: Step | undefined;
  readonly onClose: () => void;
}

/** What will not come at a step, or beside it, and its ladder. */
export function Stuck({ step, onClose }: StuckProps): ReactElement {
  const { job, sheet, state } = useHere();
  const at = step?.ref ?? null;
  const open = state.ladders.find((ladder) => ladder.step === at);
  const part = step?.record.counts?.[0]?.part ?? step?.frees?.[0];
  const usual = open?.what ?? (part === undefined ? (step?.title ?? '') : partName(sheet, part));
  const [typed, setTyped] = useDraft<string | null>(`${job.id}.${at ?? ''}.stuck`, null);
  const what = (typed ?? usual).trim();
  const end = (): void => {
    setTyped(undefined);
    onClose();
  };
  return (
    <Dialog show centered size="lg" animation={false} onHide={onClose} aria-label="It will not come" restoreFocus>
      <Dialog.Body>
        <h2>It will not come</h2>
        {step?.stopWhen ? (
          <p className="mb-1">
            <b>Stop when: </b>
            {step.stopWhen}
          </p>
        ) : null}
        <LineField label="What will not come" longest={120} text={typed ?? usual} onText={setTyped} />
        <p className="soft mt-1 mb-1">
          {step?.ladder?.length ? 'By this sheet.' : 'Common practice: this sheet has no ladder of its own here.'} One rung after the other;
          each is kept.
        </p>
        {what === '' ? null : <Rungs ladder={ladderAt(sheet, state.live, at, what)} onEnd={end} />}
      </Dialog.Body>
    </Dialog>
  );
}
