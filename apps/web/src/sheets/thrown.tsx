import { ENDPOINTS } from '@jubb/wire';
import type { SheetFile } from '@jubb/sheet';
import { useState, type ReactElement } from 'react';
import Button from 'react-bootstrap/Button';
import { useNavigate } from 'react-router';
import { ask } from '../link/client.ts';
import { queryClient } from '../link/queries.ts';
import { Wrong } from '../kit/pieces.tsx';
import { useDraft } from '../kit/prefs.ts';

/** Where the last draft that was thrown away on this device is kept. */
export const THROWN = 'thrown-sheet';

export interface Thrown {
  readonly title: string;
  readonly file: SheetFile;
}

/** The draft that was thrown away last, until it is brought back or let go. */
export function ThrownAway(): ReactElement | null {
  const [thrown, setThrown] = useDraft<Thrown | undefined>(THROWN, undefined);
  const [refusal, setRefusal] = useState<unknown>();
  const go = useNavigate();
  if (!thrown) return null;
  const bringBack = async (): Promise<void> => {
    try {
      const { revisionId } = await ask(ENDPOINTS.sheets.draftBack, { body: { file: thrown.file } });
      setThrown(undefined);
      await queryClient.invalidateQueries({ queryKey: ['sheets'] });
      void go(`/sheets/${revisionId}/edit`);
    } catch (problem) {
      setRefusal(problem);
    }
  };
  return (
    <div className="sheet-box" role="status">
      The draft of {thrown.title} is thrown away.{' '}
      <Button variant="plain" onClick={() => void bringBack()}>
        Bring it back
      </Button>{' '}
      <Button variant="quiet" onClick={() => setThrown(undefined)}>
        Let it go
      </Button>
      <Wrong error={refusal} />
    </div>
  );
}
