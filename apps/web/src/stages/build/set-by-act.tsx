import { actOf, type SettingRun } from '@jubb/book';
import { settingQuantity, type Step } from '@jubb/sheet';
import type { ReactElement, ReactNode } from 'react';
import { useHere } from '../../job/use-job.ts';
import { useUnits } from '../../kit/units.ts';
import { Care } from '../../kit/pieces.tsx';
import { RecorderLayout } from '../../job/recorder/layout.tsx';

/** So often a bolt that clicks may be turned on before something else is wrong: common practice. */
const MOST_CLICKS = 2;

interface SetByActProps {
  readonly run: SettingRun;
  readonly step: Step;
  readonly wide: ReactNode;
}

/** A setting whose method says itself when it is there: a bolt that clicks, a mark, a locknut. What it came to is read after it. */
export function SetByAct({ run, step, wide }: SetByActProps): ReactElement | null {
  const { state, keep } = useHere();
  const units = useUnits();
  const { setting, tries, acts, window, playNow } = run;
  const act = actOf(setting);
  if (act === undefined) return null;
  const done = (): void => keep({ kind: 'nut', payload: { setting: setting.ref, act, angle: 0 }, step: step.ref });
  const quantity = settingQuantity(setting);
  const last = tries.at(-1);
  const found = last && <>It read {units.text(last.play, quantity, window)}. </>;
  switch (act) {
    case 'clicked':
      return (
        <RecorderLayout
          say={
            <>
              {found}
              {acts === 0
                ? 'Turn what runs on it and pull the bolt, slowly, until it clicks. The click is the setting: it is never backed off, and no torque stands in for it.'
                : 'Turn it on by half a turn and pull until it clicks once more.'}
            </>
          }
          primary={{ label: 'It clicked', run: done }}
          wide={tries.length > 0 ? wide : undefined}
        >
          {acts >= MOST_CLICKS && last?.verdict === 'out' ? (
            <Care title="Stop and look">
              {acts} clicks, and there is play still: the spacer is missing, a ring does not stand on its shoulder, or the bolt was used
              before. Take it apart; do not pull on.
            </Care>
          ) : null}
          {setting.how ? <p className="soft mb-0">{setting.how}</p> : null}
        </RecorderLayout>
      );
    case 'lined-up':
      return (
        <RecorderLayout
          say={<>{found}Bring it to where it was found: the mark is the setting, for the book has no other.</>}
          primary={{ label: 'It is at its mark', run: done }}
          wide={tries.length > 0 ? wide : undefined}
        >
          {state.marks.length > 0 ? (
            <ul className="mb-2">
              {state.marks.map(({ entryId, what, mark }) => (
                <li key={entryId}>
                  {what}: <b>{mark}</b>
                </li>
              ))}
            </ul>
          ) : (
            <p className="brass mb-2">No mark was made on this job: what was measured as found is all there is.</p>
          )}
          {setting.how ? <p className="soft mb-0">{setting.how}</p> : null}
        </RecorderLayout>
      );
    default:
      return (
        <RecorderLayout
          say={
            <>
              {playNow === undefined ? '' : `Before it is locked: ${units.text(playNow, quantity, window)}. `}Hold the nut, tighten the
              locknut against it, and leave the tab straight until it is read.
            </>
          }
          primary={{ label: 'Locknut tight', run: done }}
          wide={tries.length > 0 ? wide : undefined}
        />
      );
  }
}
