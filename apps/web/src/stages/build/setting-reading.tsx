import type { Quantity, Window } from '@jubb/core';
import type { Bearings, LessPayload, SettingRun } from '@jubb/book';
import type { Step } from '@jubb/sheet';
import type { ReactElement, ReactNode } from 'react';
import { useHere } from '../../job/use-job.ts';
import { Measure } from '../measure/measure.tsx';
import { useAccepting } from './accepting.tsx';

interface SettingReadingProps {
  readonly run: SettingRun;
  readonly step: Step;
  readonly moment: 'found' | 'now' | 'locked' | 'proved';
  readonly name?: string | undefined;
  readonly quantity: Quantity;
  readonly window: Window;
  readonly toolKind?: string | undefined;
  readonly bearings: Bearings;
  /** What is taken off a reading of the whole. */
  readonly less?: readonly LessPayload[];
  readonly intro: ReactNode;
  readonly source: ReactNode;
  readonly wide?: ReactNode;
}

/** One reading of a setting, at its moment; a last one that stayed unsure is let stand from here. */
export function SettingReading({ run, step, moment, bearings, less, ...shown }: SettingReadingProps): ReactElement {
  const { keep } = useHere();
  const accepting = useAccepting({ run, step });
  const { setting } = run;
  const { name = setting.name, toolKind = setting.tool, quantity, window, intro, source, wide } = shown;
  return (
    <Measure
      key={moment}
      draftKey={`${step.ref}.${moment}`}
      name={name}
      quantity={quantity}
      window={window}
      toolKind={toolKind}
      repeats={setting.repeats}
      least={0}
      // A slip of the decimal sign or the unit is further off than any try.
      most={Math.max(5, (window.to ?? 0) * 4)}
      kind="end-play"
      payload={(readings, unit) => ({
        setting: setting.ref,
        moment: moment === 'found' ? 'locked' : moment,
        readings,
        unit,
        ...(less ? { less } : {}),
        ...(setting.windowUsed ? { bearings } : {}),
      })}
      onKeep={(payload, tool) => keep({ kind: 'end-play', payload, step: step.ref, ...(tool ? { toolId: tool.id } : {}) })}
      intro={
        <>
          {accepting.words}
          {intro}
        </>
      }
      others={accepting.acts}
      source={source}
      wide={wide}
    />
  );
}
