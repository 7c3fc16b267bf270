import { benchTaken, kindRefusal, whoWords, type Bench } from '@jubb/book';
import type { Step, Way } from '@jubb/sheet';
import type { ReactElement } from 'react';
import { openWords } from '../kit/open-words.ts';
import { Care } from '../kit/pieces.tsx';
import { useBenches } from '../link/queries.ts';
import { RecorderLayout } from './recorder/layout.tsx';
import { useHere } from './use-job.ts';

/** Where a step is done by the way that is gone: when the machine can be used, by whom, and what stands there. */
export function WhereDone({ step, way }: { readonly step: Step; readonly way: Way | undefined }): ReactElement | null {
  const { data: benches = [] } = useBenches();
  const kind = benchTaken(step, way);
  const own = benches.filter((one) => one.kind === kind);
  if (kind === undefined || benches.length === 0) return null;
  if (own.length === 0) return <p className="brass mb-1">Needs a {kind}: this shop has none.</p>;
  // Where one of them can be used, nobody has to be told of the others.
  const isFine = own.some((one) => one.out === null && openWords(one)?.isOpen !== false);
  return <p className={`mb-1 ${isFine ? 'soft page-only' : 'brass'}`}>At: {own.map(benchWords).join('; ')}.</p>;
}

function benchWords(bench: Bench): string {
  const words = [
    bench.name,
    bench.out === null ? openWords(bench)?.words : `out of use: ${bench.out}`,
    bench.who.length === 0 ? undefined : `used by ${whoWords(bench)}`,
    bench.jobs.length === 0 ? undefined : `there now: ${bench.jobs.map(({ number }) => `job ${number}`).join(', ')}`,
  ];
  return words.filter(Boolean).join(', ');
}

/** Before a step whose machine is out of use, or for others only; nothing where it may be done. */
export function useNotHere(step: Step, way: Way | undefined): ReactElement | null {
  const { person, state } = useHere();
  const { data: benches = [] } = useBenches();
  const kind = benchTaken(step, way);
  const refusal = kind && kindRefusal(kind, benches, person.id);
  const isDone = state.steps.some((one) => one.step.ref === step.ref && one.done);
  if (refusal === undefined || isDone || state.handedOver) return null;
  return (
    <RecorderLayout>
      <Care title="Not for you now">
        “{step.title}” {refusal}. Somebody who may logs in here, or the foreman sees to it.
      </Care>
    </RecorderLayout>
  );
}
