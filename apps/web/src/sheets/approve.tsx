import type { SheetView } from '@jubb/contract/job';
import { useState, type ReactElement } from 'react';
import { useNavigate } from 'react-router';
import { call } from '../api/client.ts';
import { queryClient, useSession } from '../api/queries.ts';
import { Care, Wrong } from '../kit/pieces.tsx';
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
            <button type="button" className="btn btn-plain" onClick={() => settle(clash, 'mine')}>
              Mine
            </button>
            <button type="button" className="btn btn-plain" onClick={() => settle(clash, 'theirs')}>
              Theirs
            </button>
          </div>
        ))}
      </Care>
    );
  return joined ? <p role="status">Brought together with what {joined} changed meanwhile.</p> : null;
}

/** The foreman's word that jobs may go by it. */
export function Approve({
  sheet,
  stops,
  ready,
}: {
  readonly sheet: SheetView;
  readonly stops: number;
  readonly ready: boolean;
}): ReactElement | null {
  const { data: session } = useSession();
  const [refusal, setRefusal] = useState<unknown>();
  const go = useNavigate();
  if (session?.person.role !== 'foreman') return null;
  const approve = async (): Promise<void> => {
    setRefusal(undefined);
    try {
      await call('POST', `/sheets/${sheet.revisionId}/approve`);
      await queryClient.invalidateQueries({ queryKey: ['sheets'] });
      void go(`/sheets/${sheet.revisionId}`);
    } catch (error) {
      setRefusal(error);
    }
  };
  const drop = async (): Promise<void> => {
    try {
      await call('DELETE', `/sheets/${sheet.revisionId}`);
      await queryClient.invalidateQueries({ queryKey: ['sheets'] });
      void go('/sheets');
    } catch (error) {
      setRefusal(error);
    }
  };
  return (
    <>
      <button type="button" className="btn btn-primary" disabled={!ready} onClick={() => void approve()}>
        {stops > 0 ? `Approve it (${stops} to mend first)` : 'Approve it'}
      </button>
      <button type="button" className="btn btn-plain" onClick={() => void drop()}>
        Throw the draft away
      </button>
      <Wrong error={refusal} />
    </>
  );
}
