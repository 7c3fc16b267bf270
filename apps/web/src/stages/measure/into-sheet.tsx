import { doubtOf, mayMake, type PayloadOf } from '@jubb/book';
import { VALUE_LISTS, type SheetFile, type ValueList } from '@jubb/sheet';
import { baseUnit, formatQuantity, quantityOf, workings, type WorkingRun } from '@jubb/core';
import { useId, useState, type ReactElement } from 'react';
import Button from 'react-bootstrap/Button';
import FormLabel from 'react-bootstrap/FormLabel';
import FormSelect from 'react-bootstrap/FormSelect';
import { useHere } from '../../job/use-job.ts';
import { useSession } from '../../link/queries.ts';

/** A place of the sheet that nobody's figure stands at, and an answer that could. */
interface Fitting {
  /** Of place and answer, whatever the answer comes to. */
  readonly key: string;
  readonly list: ValueList;
  readonly line: string;
  readonly field: string;
  readonly figure: string;
  readonly words: string;
}

/** A figure for the sheet, as it is kept. */
export interface FoundDraft {
  readonly kind: 'value-found';
  readonly payload: PayloadOf<'value-found'>;
}

interface IntoSheetProps {
  readonly working: string;
  readonly run: WorkingRun;
  readonly onPut: (found: FoundDraft) => void;
}

/** Puts an answer into the sheet where it has no figure that somebody stands for: for this job at once, for the sheet a proposal. */
export function IntoSheet({ working, run, onPut }: IntoSheetProps): ReactElement | null {
  const { sheet } = useHere();
  const { data: session } = useSession();
  const id = useId();
  // Nothing is chosen by itself: a torque at the wrong screw is worse than none.
  const [chosen, setChosen] = useState('');
  // What is on a sheet is for those who may write on one.
  const fittings = session && mayMake('value-found', session.person.role) ? fittingsOf(sheet, working, run) : [];
  if (fittings.length === 0) return null;
  const fitting = fittings.find(({ key }) => key === chosen);
  const put = (): void => {
    if (!fitting) return;
    const { list, line, field, figure } = fitting;
    const source = (workings.describe(working)?.title ?? working).slice(0, 200);
    onPut({ kind: 'value-found', payload: { list, line, figures: [{ field, figure }], source, calculated: true } });
  };
  return (
    <section className="mb-3" aria-label="Into the sheet">
      <FormLabel htmlFor={id}>Nobody stands for this figure of the sheet yet</FormLabel>
      <div className="d-flex flex-wrap gap-3">
        <FormSelect id={id} className="w-auto" value={chosen} onChange={(event) => setChosen(event.target.value)}>
          <option value="">choose where it belongs</option>
          {fittings.map(({ key, words }) => (
            <option key={key} value={key}>
              {words}
            </option>
          ))}
        </FormSelect>
        <Button variant="plain" disabled={!fitting} onClick={put}>
          Put it into the sheet, as worked out
        </Button>
      </div>
    </section>
  );
}

/** The answer, and what else is of its quantity, at every place that lacks a figure of that. What stands beside it is no answer to the same question. */
function fittingsOf(sheet: SheetFile, working: string, { input, output }: WorkingRun): readonly Fitting[] {
  const described = workings.describe(working);
  const answers = (described?.outputs ?? []).flatMap((field) => {
    const answer = output[field.name];
    if (field.kind !== 'number' || typeof answer !== 'number') return [];
    const quantity = quantityOf(field.quantity, input, described!.inputs);
    return [{ label: field.label, quantity, figure: formatQuantity(answer, quantity, baseUnit(quantity).symbol) }];
  });
  const asked = answers.filter(({ quantity }) => quantity === answers[0]?.quantity);
  return VALUE_LISTS.flatMap((list) =>
    (sheet[list] ?? []).flatMap(({ ref }) => {
      const doubt = doubtOf(sheet, list, ref);
      return (doubt?.figures ?? []).flatMap(({ field, label, quantity }) =>
        asked
          .filter((answer) => answer.quantity === quantity)
          .map((answer) => ({
            key: [list, ref, field, answer.label].join('/'),
            list,
            line: ref,
            field,
            figure: answer.figure,
            words: `${doubt!.name}, ${label.toLowerCase()}: ${answer.figure} (${answer.label.toLowerCase()})`,
          })),
      );
    }),
  );
}
