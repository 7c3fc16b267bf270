import { intentOf, pressCrib, stopAt, wayOff } from '@jubb/book';
import { formatQuantity } from '@jubb/core';
import { find, type Fit, type LetsGoBy, type Step } from '@jubb/sheet';
import type { ReactElement } from 'react';
import { FigureField, readFigure } from '../../kit/figure-field.tsx';
import { LineField } from '../../kit/line-field.tsx';
import { useDraft } from '../../kit/prefs.ts';
import { RecorderLayout } from '../recorder/layout.tsx';
import { useHere } from '../use-job.ts';

interface ApartDraft {
  readonly support: string;
  readonly force: string;
  readonly note: string;
}

const MOST_N = 1e7;
const EMPTY: ApartDraft = { support: '', force: '', note: '' };
const BY: readonly (readonly [LetsGoBy, string, 'c' | 'd' | 't' | 'x'])[] = [
  ['puller', 'Drawn', 'd'],
  ['heat', 'By heat', 't'],
  ['hand', 'By hand', 'c'],
  ['cut', 'Cut, cracked', 'x'],
];

/** How a fit came apart, and what it took: more than it should have says that something held it. */
export function ApartRecorder({ step, fit }: { readonly step: Step; readonly fit: Fit }): ReactElement {
  const { job, sheet, state, keep } = useHere();
  const [draft, setDraft] = useDraft<ApartDraft>(`${job.id}.${step.ref}.${fit.ref}.apart`, EMPTY);
  const answer = wayOff(sheet, fit, new Map([[fit.part, 'keep']]), pressCrib(job.tools));
  const used = 'used' in answer ? answer.used : null;
  const stop = stopAt(used);
  const part = find(sheet.parts, fit.part);
  const isKept = part !== undefined && intentOf(part, state.intents) === 'keep';
  const { base: force } = readFigure(draft.force, 'force', 'kN', { least: 0, most: MOST_N });
  const isOver = force !== undefined && stop !== undefined && force > stop;
  const wantsNote = isOver && draft.note.trim() === '';
  const isBad = draft.force.trim() !== '' && force === undefined;
  const off = (by: LetsGoBy): void => {
    if (wantsNote || isBad) return;
    const [support, note] = [draft.support.trim(), draft.note.trim()];
    keep({
      kind: 'let-go',
      payload: {
        fit: fit.ref,
        by,
        ...(support === '' ? {} : { support }),
        ...(force === undefined ? {} : { force }),
        ...(note === '' ? {} : { note }),
      },
      step: step.ref,
    });
    setDraft(undefined);
  };
  return (
    <RecorderLayout
      say={
        <>
          {fit.name}
          <br />
          How did it come apart?
        </>
      }
      primary={{ label: 'Pressed', run: () => off('press'), disabled: wantsNote || isBad }}
      others={BY.filter(([by]) => by !== 'cut' || !isKept).map(([by, label, key]) => ({
        label,
        key,
        run: () => off(by),
        disabled: wantsNote || isBad,
      }))}
    >
      <div className="d-flex flex-wrap gap-4 align-items-start">
        <FigureField
          label={`Most that it took${stop === undefined ? '' : `, stop at ${formatQuantity(Number(stop.toPrecision(2)), 'force')}`}`}
          quantity="force"
          unit="kN"
          text={draft.force}
          onText={(text) => setDraft({ ...draft, force: text })}
          least={0}
          most={MOST_N}
          tried={false}
        />
        <LineField
          label="What stood under it, or drew it"
          longest={100}
          placeholder={used ? String(used.output['which']) : ''}
          text={draft.support}
          onText={(support) => setDraft({ ...draft, support })}
        />
      </div>
      {isOver ? (
        <LineField
          label="It took more than it should: what held it?"
          longest={300}
          text={draft.note}
          onText={(note) => setDraft({ ...draft, note })}
        />
      ) : null}
    </RecorderLayout>
  );
}
