import { gridPlaces, plausibleReadings } from '@jubb/book';
import { find, limitQuantity, limitWindow } from '@jubb/sheet';
import type { ReactElement } from 'react';
import { LookSketch } from '../../drawings/look.tsx';
import { Trust } from '../../kit/pieces.tsx';
import { useHere } from '../../job/use-job.ts';
import { RecorderLayout, type RecorderProps } from '../../job/recorder/layout.tsx';
import { Measure } from './measure.tsx';
import { MovedAt } from '../strip/moved-at.tsx';

export function ReadingRecorder({ step }: RecorderProps): ReactElement | null {
  const { sheet, keep } = useHere();
  const limit = find(sheet.limits, step.record.limit);
  if (!limit) return null;
  if (limit.pulled) return <MovedAt step={step} limit={limit} direction={limit.pulled} />;
  const window = limitWindow(limit);
  return (
    <Measure
      draftKey={step.ref}
      name={limit.name}
      quantity={limitQuantity(limit)}
      window={window}
      toolKind={limit.tool}
      repeats={gridPlaces(limit) ?? limit.repeats ?? 1}
      limit={limit}
      {...plausibleReadings(limit)}
      kind="reading"
      payload={(readings, unit) => ({ limit: limit.ref, readings, unit })}
      onKeep={(payload, tool) => keep({ kind: 'reading', payload, step: step.ref, ...(tool ? { toolId: tool.id } : {}) })}
      source={
        <>
          {limit.service ? <Trust of={limit.service} documents={sheet.documents} /> : null}
          <p className="soft mb-0">When out: {limit.whenOut}</p>
        </>
      }
    />
  );
}

const BADNESS = { in: 0, unsure: 1, out: 2 } as const;

export function LookRecorder({ step }: RecorderProps): ReactElement | null {
  const { sheet, keep } = useHere();
  const limit = find(sheet.limits, step.record.limit);
  if (!limit) return null;
  return (
    <RecorderLayout
      say="What does it look like? From good to bad:"
      others={(limit.looks ?? [])
        .toSorted((one, other) => BADNESS[one.verdict] - BADNESS[other.verdict])
        .map((look, index) => ({
          label: (
            <>
              {look.picture ? <LookSketch picture={look.picture} /> : null}
              {look.words} <span className={`fig v-${look.verdict}`}>{look.verdict}</span>
            </>
          ),
          key: `${index + 1}` as const,
          run: () => keep({ kind: 'look', payload: { limit: limit.ref, look: look.ref }, step: step.ref }),
        }))}
    >
      <p className="soft mb-0">When out: {limit.whenOut}</p>
    </RecorderLayout>
  );
}
