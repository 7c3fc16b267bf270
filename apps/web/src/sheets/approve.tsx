import type { SheetFile } from '@jubb/sheet';
import { ENDPOINTS, type SheetView } from '@jubb/wire';
import { useState, type ReactElement } from 'react';
import Button from 'react-bootstrap/Button';
import { useNavigate } from 'react-router';
import { ask } from '../link/client.ts';
import { queryClient, useSession } from '../link/queries.ts';
import { Dialog } from '../kit/dialog.ts';
import { Care, Wrong } from '../kit/pieces.tsx';
import { useDraft, writeStored } from '../kit/prefs.ts';
import { THROWN, type Thrown } from './thrown.tsx';
import type { SheetDraft } from './use-sheet-draft.ts';

/** What somebody else changed at the same time: said, and where both changed a line, asked. */
export function Together({ draft }: { readonly draft: SheetDraft }): ReactElement | null {
  const { clashes, joined, settle } = draft;
  if (clashes.length > 0)
    return (
      <Care title="Both changed">
        {joined} changed these lines while you did. Which one stands?
        {clashes.map((clash) => (
          <div key={`${clash.list}${clash.ref}${clash.name}`} className="keys mt-1 align-items-center">
            <b>{clash.name}</b>
            <Button variant="plain" onClick={() => settle(clash, 'mine')}>
              Mine
            </Button>
            <Button variant="plain" onClick={() => settle(clash, 'theirs')}>
              Theirs
            </Button>
          </div>
        ))}
      </Care>
    );
  return joined ? <p role="status">Brought together with what {joined} changed meanwhile.</p> : null;
}

/** The foreman's word that jobs may go by it. */
export function Approve({
  sheet,
  file,
  stops,
  ready,
}: {
  readonly sheet: SheetView;
  readonly file: SheetFile;
  readonly stops: number;
  readonly ready: boolean;
}): ReactElement | null {
  const { data: session } = useSession();
  const [refusal, setRefusal] = useState<unknown>();
  const go = useNavigate();
  const [isAsked, setAsked] = useState(false);
  const [, setThrown] = useDraft<Thrown | undefined>(THROWN, undefined);
  if (session?.person.role !== 'foreman') return null;
  const approve = async (): Promise<void> => {
    setRefusal(undefined);
    try {
      await ask(ENDPOINTS.sheets.approve, { id: sheet.revisionId });
      await queryClient.invalidateQueries({ queryKey: ['sheets'] });
      void go(`/sheets/${sheet.revisionId}`);
    } catch (error) {
      setRefusal(error);
    }
  };
  const drop = async (): Promise<void> => {
    try {
      await ask(ENDPOINTS.sheets.drop, { id: sheet.revisionId });
      writeStored(`draft.sheet.${sheet.revisionId}`, undefined);
      setThrown({ title: file.title, file });
      await queryClient.invalidateQueries({ queryKey: ['sheets'] });
      void go('/sheets');
    } catch (error) {
      setRefusal(error);
    }
    setAsked(false);
  };
  return (
    <>
      <Button variant="primary" disabled={!ready} onClick={() => void approve()}>
        {stops > 0 ? `Approve it (${stops} to mend first)` : 'Approve it'}
      </Button>
      <Button variant="plain" onClick={() => setAsked(true)}>
        Throw the draft away
      </Button>
      <Dialog show={isAsked} centered animation={false} aria-labelledby="throw-title" onHide={() => setAsked(false)}>
        <Dialog.Header closeButton>
          <Dialog.Title as="h2" id="throw-title">
            Throw the draft away?
          </Dialog.Title>
        </Dialog.Header>
        <Dialog.Body>
          All that is written in the draft of {file.title} goes; what is approved stays. It can be brought back from the list of sheets on
          this device.
        </Dialog.Body>
        <Dialog.Footer>
          <Button variant="plain" autoFocus onClick={() => setAsked(false)}>
            Leave it
          </Button>
          <Button variant="plain" className="v-out" onClick={() => void drop()}>
            Throw it away
          </Button>
        </Dialog.Footer>
      </Dialog>
      <Wrong error={refusal} />
    </>
  );
}
