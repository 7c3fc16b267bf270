import { intentOf, keptOrNot, letGoAt, pressCrib, wayOff } from '@jubb/book';
import { formatQuantity } from '@jubb/core';
import { find, type Fit, type Step } from '@jubb/sheet';
import type { ReactElement } from 'react';
import { useHere } from '../../job/use-job.ts';

/** How the fits of a step come apart: which ring is carried, on what, by how much, and where one stops. */
export function WaysOff({ step }: { readonly step: Step }): ReactElement | null {
  const { sheet, state } = useHere();
  const isAsked = (part: string): boolean =>
    keptOrNot(sheet, { letsGo: letGoAt(sheet, step).flatMap((fit) => (fit.part === part ? [fit.ref] : [])) }, state.intents) !== undefined;
  // Whether it is kept picks the way: that is asked first.
  const fits = letGoAt(sheet, step).filter(({ part }) => !isAsked(part));
  if (fits.length === 0) return null;
  return (
    <div className="way-off">
      {fits.map((fit) => (
        <WayOff key={fit.ref} fit={fit} />
      ))}
    </div>
  );
}

function WayOff({ fit }: { readonly fit: Fit }): ReactElement {
  const { job, sheet, state } = useHere();
  const part = find(sheet.parts, fit.part);
  const answer = wayOff(sheet, fit, state.intents, pressCrib(job.tools));
  const isKept = part !== undefined && intentOf(part, state.intents) === 'keep';
  return (
    <div className="mb-1">
      <b>{fit.name}</b> {isKept ? 'to be kept' : <span className="brass">may be spoilt</span>}
      {'used' in answer ? (
        <Answer output={answer.used.output} />
      ) : (
        answer.issues.map(({ words }) => (
          <p key={words} className="v-out mb-0">
            {words}
          </p>
        ))
      )}
      {fit.off?.how ? <p className="soft mb-0">{fit.off.how}</p> : null}
    </div>
  );
}

function Answer({ output }: { readonly output: Readonly<Record<string, unknown>> }): ReactElement {
  // Friction is known to a third at best.
  const force = (name: string): string => formatQuantity(Number(Number(output[name]).toPrecision(2)), 'force');
  const heat = String(output['heat']);
  return (
    <>
      <p className="mb-0">
        <b className="fig fs-5">{force('force')}</b> at most, <b className="v-out">stop at {force('stop')}</b>. {String(output['what'])}{' '}
        Under it: <b>{String(output['which'])}</b>. Square before load.
      </p>
      {/* Heat that does not do it is no way. */}
      {heat.startsWith('Warmed') ? <p className="soft mb-0">{heat}</p> : null}
    </>
  );
}
