import type { ExplainStep } from '@jubb/core';
import type { ReactElement } from 'react';

/** The way to a result, line by line. */
export function Way({ steps }: { readonly steps: readonly ExplainStep[] }): ReactElement {
  return (
    <>
      <h2>How it comes about</h2>
      <ol>
        {steps.map((step) => (
          <li key={step.say + (step.numbers ?? '')}>
            {step.say}
            {step.formula ? <div className="soft">{step.formula}</div> : null}
            {step.numbers ? <div className="fig fs-5">{step.numbers}</div> : null}
          </li>
        ))}
      </ol>
    </>
  );
}
