import { isKind } from '@jubb/book';
import { ENDPOINTS } from '@jubb/wire';
import { useState, type ReactElement } from 'react';
import Button from 'react-bootstrap/Button';
import { useNavigate } from 'react-router';
import { useHere } from '../../job/use-job.ts';
import { Wrong } from '../../kit/pieces.tsx';
import { ask } from '../../link/client.ts';
import { queryClient } from '../../link/queries.ts';

/** So many lines that no sheet knew of are worth a sheet. */
const WORTH_IT = 3;

/** What was taken apart without a sheet becomes the first draft of one: the next of its kind begins with it. */
export function MakeSheet(): ReactElement | null {
  const { job, state, person } = useHere();
  const go = useNavigate();
  const [isMaking, setMaking] = useState(false);
  const [refusal, setRefusal] = useState<unknown>();
  const free = state.live.filter(isKind('came-off')).filter(({ payload }) => payload.part === undefined).length;
  if (free < WORTH_IT || (person.role !== 'foreman' && person.role !== 'mechanic')) return null;
  const make = async (): Promise<void> => {
    setMaking(true);
    setRefusal(undefined);
    try {
      const { sheetFromStrip } = await import('@jubb/play');
      const file = sheetFromStrip(job.sheet.file, `${job.sheet.file.key}-stripped-${job.number}`, state.live);
      const { revisionId } = await ask(ENDPOINTS.sheets.importFile, { body: { text: JSON.stringify(file) } });
      await queryClient.invalidateQueries({ queryKey: ['sheets'] });
      void go(`/sheets/${revisionId ?? ''}/edit`);
    } catch (problem) {
      setRefusal(problem);
      setMaking(false);
    }
  };
  return (
    <div className="mb-2">
      <Wrong error={refusal} />
      <p className="mb-0">
        {free} lines stand on no sheet.{' '}
        <Button variant="quiet" className="p-0" disabled={isMaking} onClick={() => void make()}>
          {isMaking ? 'The draft is made …' : 'Make a sheet of this strip'}
        </Button>
      </p>
    </div>
  );
}
