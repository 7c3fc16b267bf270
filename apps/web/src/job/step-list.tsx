import type { StepState } from '@jubb/book';
import type { Step } from '@jubb/sheet';
import type { ReactElement } from 'react';

export interface StepChoice {
  readonly chosen: Step | undefined;
  readonly next: Step | undefined;
  readonly onChoose: (ref: string) => void;
}

export function StepList({ steps, ...choice }: StepChoice & { readonly steps: readonly StepState[] }): ReactElement {
  return (
    <ol className="steps">
      {steps.map((state) => (
        <li key={state.step.ref} className={stepClass(state, choice)}>
          <StepButton state={state} {...choice} />
        </li>
      ))}
    </ol>
  );
}

export function stepClass({ step, done }: StepState, { chosen, next }: Omit<StepChoice, 'onChoose'>): string {
  return `${done ? 'done' : step.ref === next?.ref ? 'next' : ''} ${step.ref === chosen?.ref ? 'here' : ''}`;
}

/** A step by its title, with how far it is. */
export function StepButton({
  state: { step, done, progress, problem },
  chosen,
  next,
  onChoose,
}: StepChoice & { readonly state: StepState }): ReactElement {
  return (
    <button type="button" onClick={() => onChoose(step.ref)} aria-current={step.ref === chosen?.ref ? 'step' : undefined}>
      <span className="mark" aria-hidden="true" />
      <span>
        {step.title}
        <span className="visually-hidden">{done ? ', done' : step.ref === next?.ref ? ', next' : ', to do'}</span>
        {problem ? <span className="v-out"> {problem}</span> : null}
      </span>
      <span className="fig soft">{progress && progress.total > 1 ? `${progress.done} of ${progress.total}` : ''}</span>
    </button>
  );
}
