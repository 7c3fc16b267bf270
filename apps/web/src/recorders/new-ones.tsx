import { partName, type Joint, type PartLine, type Step } from '@jubb/contract/job';
import type { ReactElement } from 'react';
import { Link } from 'react-router';
import { call } from '../api/client.ts';
import { useParts } from '../decide/use-parts.ts';
import { useHere } from '../job/use-job.ts';
import { LineField } from '../kit/line-field.tsx';
import { Care, Wrong } from '../kit/pieces.tsx';
import { useDraft } from '../kit/prefs.ts';
import { useSend } from '../kit/use-send.ts';
import { moveOf } from '../stores/move-of.ts';
import { refreshStores } from '../stores/queries.ts';
import { RecorderLayout } from './layout.tsx';

/** Fasteners that are new each time: out of stores for this job, or said where else they come from, before the first is pulled. */
export function NewOnes({ step, joint }: { readonly step: Step; readonly joint: Joint }): ReactElement {
  const { job, sheet, keep } = useHere();
  const { parts, error } = useParts();
  const [elsewhere, setElsewhere] = useDraft(`${job.id}.${step.ref}.new`, '');
  const line = parts?.lines.find(({ need }) => need.parts.includes(joint.part));
  const isOut = (line?.out ?? 0) >= joint.count;
  const said = elsewhere.trim();
  const name = partName(sheet, joint.part);
  const go = (): void => {
    const seen = said === '' ? `${joint.count} new ${name}, out of stores` : `${joint.count} new ${name}: ${said}`;
    keep({ kind: 'replacement-here', payload: { seen: seen.slice(0, 300) }, step: step.ref });
    setElsewhere(undefined);
  };
  return (
    <RecorderLayout primary={{ label: 'New ones in hand', run: go, disabled: !isOut && said === '' }}>
      <Care title="New each time">
        {joint.count} × {name}: the old ones were stretched once, and do not go back.
      </Care>
      {parts ? (
        <FromStores line={line} count={joint.count} />
      ) : (
        <p className="soft">{error ? 'The shelves cannot be seen now.' : 'Looking at the shelves …'}</p>
      )}
      {isOut ? null : (
        <div className="mt-2">
          <LineField
            label="Not out of stores: where they come from"
            longest={200}
            placeholder="From the kit, brought by the customer …"
            text={elsewhere}
            onText={setElsewhere}
            onEnter={() => {
              if (said !== '') go();
            }}
          />
        </div>
      )}
    </RecorderLayout>
  );
}

function FromStores({ line, count }: { readonly line: PartLine | undefined; readonly count: number }): ReactElement {
  const { job } = useHere();
  const { busy, error, send } = useSend();
  const shelves = line ? [...(line.shelf ? [line.shelf] : []), ...line.others] : [];
  const kept = shelves.find(({ reservedHere }) => reservedHere > 0);
  const free = shelves.find(({ onHand, reserved }) => onHand - reserved >= count);
  const take = (): void =>
    void send(async () => {
      if (kept) return call('POST', `/stock/${kept.id}/moves`, moveOf('issue', kept.reservedHere, job.id));
      if (!free) return undefined;
      await call('POST', `/stock/${free.id}/moves`, moveOf('reserve', count, job.id));
      return call('POST', `/stock/${free.id}/moves`, moveOf('issue', count, job.id));
    }).finally(() => void refreshStores());
  if (line && line.out >= count) return <p className="v-in mb-0">{line.out} out of stores for this job.</p>;
  return (
    <>
      <p className="mb-1">
        {line && line.out > 0 ? `${line.out} out of stores for this job.` : 'None out of stores for this job.'}{' '}
        {kept || free ? null : <Link to={`/jobs/${job.id}/parts`}>Parts to have</Link>}
      </p>
      {kept || free ? (
        <button type="button" className="btn btn-plain" disabled={busy} onClick={take}>
          Take {kept ? kept.reservedHere : count} out of stores
        </button>
      ) : null}
      <Wrong error={error} />
    </>
  );
}
