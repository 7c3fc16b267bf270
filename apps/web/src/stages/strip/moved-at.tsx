import { judgeLimit } from '@jubb/book';
import { limitWindow, type Limit, type Pull, type Step } from '@jubb/sheet';
import { formatQuantity } from '@jubb/core';
import { useState, type ReactElement } from 'react';
import { VerdictShape } from '../../drawings/limit-strip.tsx';
import { FigureField, readFigure } from '../../kit/figure-field.tsx';
import { Trust } from '../../kit/pieces.tsx';
import { useDraft } from '../../kit/prefs.ts';
import { ToolPick, pickTool, rememberTool } from '../../kit/tool-pick.tsx';
import { useUnits } from '../../kit/units.ts';
import { useHere } from '../../job/use-job.ts';
import { RecorderLayout } from '../../job/recorder/layout.tsx';

interface MovedAtProps {
  readonly step: Step;
  readonly limit: Limit;
  readonly direction: Pull;
}

interface Typed {
  readonly how: 'moved' | 'clicks';
  readonly moved: string;
  readonly held: string;
  readonly letGo: string;
}

const MOST_NM = 20_000;

/** The torque at which something moved: read off a wrench that shows it, or between two clicks of one that does not. */
export function MovedAt({ step, limit, direction }: MovedAtProps): ReactElement {
  const { job, sheet, keep } = useHere();
  const units = useUnits();
  const [typed, setTyped] = useDraft<Typed>(`${job.id}.${step.ref}`, {
    // A wrench of the crib clicks; a beam shows.
    how: limit.tool === 'torque-wrench' ? 'clicks' : 'moved',
    moved: '',
    held: '',
    letGo: '',
  });
  const [toolId, setToolId] = useState<string>();
  const least = limitWindow(limit).from ?? 0;
  const size = { quantity: 'torque', base: least } as const;
  const tool = pickTool(job.tools, limit.tool, size, toolId);
  const symbol = units.symbol('torque');
  const read = (text: string): number | undefined => readFigure(text, 'torque', symbol, { least: 0, most: MOST_NM }).base;
  const found = foundIn(typed, read);
  const judged = found ? judgeLimit(limit, found, tool)?.output : undefined;
  const field = (name: 'moved' | 'held' | 'letGo', label: string, focus = false): ReactElement => (
    <FigureField
      key={name}
      label={label}
      quantity="torque"
      text={typed[name]}
      onText={(text) => setTyped({ ...typed, [name]: text })}
      onEnter={put}
      least={0}
      most={MOST_NM}
      focus={focus}
    />
  );
  const put = (): void => {
    if (!found || !judged || !tool) return;
    rememberTool(tool);
    keep({ kind: 'reading', payload: { limit: limit.ref, ...found, unit: symbol }, step: step.ref, toolId: tool.id });
    setTyped(undefined);
  };
  const other = typed.how === 'moved' ? 'clicks' : 'moved';
  const shown = units.show(least, 'torque', {});
  return (
    <RecorderLayout
      say={
        <>
          It must hold <b className="fig">{`${shown.figure} ${shown.unit}`}</b>, {direction === 'tighten' ? 'tightening' : 'undoing'}.{' '}
          {limit.service ? <Trust of={limit.service} documents={sheet.documents} /> : null}
        </>
      }
      primary={{ label: 'Keep', run: put, disabled: !judged || !tool }}
      others={[
        {
          label: other === 'clicks' ? 'With a click wrench' : 'With one that shows it',
          key: 'c',
          run: () => setTyped({ ...typed, how: other }),
        },
      ]}
      drawing={
        <>
          {judged ? (
            <p aria-live="polite">
              <b className={`fig fs-4 v-${String(judged['verdict'])}`}>
                <VerdictShape verdict={String(judged['verdict'])} /> {String(judged['verdict'])}
              </b>{' '}
              {Number(judged['short']) > 0 ? `${formatQuantity(Number(judged['short']), 'torque')} short. ` : ''}
              <span className="soft">{String(judged['settle'])}</span>
            </p>
          ) : null}
          <ToolPick label="With" tools={job.tools} kind={limit.tool} chosen={tool} size={size} onChoose={setToolId} />
          <p className="soft mt-2 mb-0">When out: {limit.whenOut}</p>
        </>
      }
    >
      <div className="d-flex flex-wrap gap-4 align-items-start">
        {typed.how === 'moved'
          ? field('moved', 'Moved at', true)
          : [field('held', 'Clicked, nothing moved', true), field('letGo', 'Moved before the click; empty if never')]}
      </div>
      <p className="soft mt-2 mb-0">{limit.how}</p>
    </RecorderLayout>
  );
}

interface Found {
  readonly readings: number[];
  readonly bracket?: { readonly held: number; readonly letGo?: number };
}

function foundIn(typed: Typed, read: (text: string) => number | undefined): Found | undefined {
  if (typed.how === 'moved') {
    const moved = read(typed.moved);
    return moved ? { readings: [moved] } : undefined;
  }
  const held = typed.held.trim() === '' ? 0 : read(typed.held);
  const letGo = typed.letGo.trim() === '' ? undefined : read(typed.letGo);
  if (held === undefined || (letGo === undefined && (held === 0 || typed.letGo.trim() !== ''))) return undefined;
  return { readings: [letGo ?? held], bracket: { held, ...(letGo === undefined ? {} : { letGo }) } };
}
