import { ENDPOINTS } from '@jubb/wire';
import type { Bearings, EarlierPulls, EarlierView, JointRun, SettingRun } from '@jubb/book';
import { settingQuantity, settingWindow, baseRef } from '@jubb/sheet';
import { formatQuantity, quantityOf, workings, type Quantity } from '@jubb/core';
import { useQuery } from '@tanstack/react-query';
import type { ReactElement } from 'react';
import { ask } from '../../link/client.ts';
import { jobKey } from '../../link/queries.ts';
import { useHere } from '../../job/use-job.ts';
import { useUnits } from '../../kit/units.ts';

/** What other jobs of the same sheet came to. */
export function useWorkedBefore(): EarlierView | undefined {
  const { job } = useHere();
  return useQuery({ queryKey: [...jobKey(job.id), 'worked-before'], queryFn: () => ask(ENDPOINTS.jobs.workedBefore, { id: job.id }) }).data;
}

interface EarlierSettingsProps {
  readonly run: SettingRun;
  readonly bearings: Bearings;
}

/** Where to begin: the middle of what worked on earlier jobs, and how far it spread. */
export function EarlierSettings({ run: { setting }, bearings }: EarlierSettingsProps): ReactElement | null {
  const units = useUnits();
  const before = useWorkedBefore()?.settings.find((one) => one.setting === baseRef(setting) && one.bearings === bearings);
  if (!before) return null;
  const { left, tries, turned, put } = before;
  const quantity = settingQuantity(setting);
  const window = settingWindow(setting, bearings);
  const write = (base: number): string => units.text(base, quantity, window);
  return (
    <span className="soft d-block mt-2">
      {left.count === 1 ? 'One job' : `${left.count} jobs`} of this sheet left it at {write(left.median)}
      {left.from === left.to ? '' : ` (${write(left.from)} to ${write(left.to)})`}, after {tries.median}{' '}
      {tries.median === 1 ? 'reading' : 'readings'}.
      {turned
        ? ` Begin with ${turned.median >= 0 ? '+' : ''}${Math.round(turned.median)}° from where it is backed off (${Math.round(turned.from)}° to ${Math.round(turned.to)}°).`
        : ''}
      {put ? ` Begin with ${putWords(put)}.` : ''}
    </span>
  );
}

function putWords({ working, output, median, from, to }: NonNullable<EarlierView['settings'][number]['put']>): string {
  const described = workings.describe(working);
  const field = described?.outputs.find(({ name }) => name === output);
  const quantity: Quantity = described && field && 'quantity' in field ? quantityOf(field.quantity, {}, described.inputs) : 'length';
  const write = (base: number): string => formatQuantity(base, quantity);
  return `${field?.label.toLowerCase() ?? 'it'} ${write(median)}${from === to ? '' : ` (${write(from)} to ${write(to)})`}`;
}

/** Pulls of a round in earlier jobs. */
export function useEarlierPulls({ joint, next }: JointRun): EarlierPulls | undefined {
  return useWorkedBefore()?.pulls.find((one) => one.joint === baseRef(joint) && one.pass === next?.pass);
}

export function EarlierPullWords({ of: { peak, angle } }: { readonly of: EarlierPulls }): ReactElement {
  const units = useUnits();
  return (
    <span className="soft d-block">
      Earlier jobs:{' '}
      {[
        peak && `${peak.count} pulls, ${units.text(peak.median, 'torque')} in the middle, s ${formatQuantity(peak.s, 'torque')}`,
        angle && `${Math.round(angle.median)}° to it (${Math.round(angle.from)}° to ${Math.round(angle.to)}°)`,
      ]
        .filter(Boolean)
        .join(', ')}
    </span>
  );
}
