import { withFigures } from '@jubb/book';
import { SHEET_LISTS, VALUE_LISTS, find, type SheetFile, type SheetList } from '@jubb/sheet';
import type { PlainLine } from '@jubb/sheet/editing';
import { ENDPOINTS, type ProposalView, type SheetView } from '@jubb/wire';
import { useState, type ReactElement } from 'react';
import { Link } from 'react-router';
import Button from 'react-bootstrap/Button';
import { ask } from '../link/client.ts';
import { queryClient } from '../link/queries.ts';
import { Wrong } from '../kit/pieces.tsx';
import { useProposals } from './queries.ts';
import type { SheetDraft } from './use-sheet-draft.ts';

/** What jobs say should be otherwise next time, on the sheet's own page. */
export function Proposals({ sheet }: { readonly sheet: SheetView }): ReactElement | null {
  const { data: proposals = [] } = useProposals(sheet.revisionId);
  if (proposals.length === 0) return null;
  return (
    <>
      <h2 className="mt-3">Next time, from jobs</h2>
      <ul className="findings">
        {proposals.map((proposal) => (
          <li key={proposal.entryId}>
            {proposal.text} <span className="soft">{[proposal.line, ...figuresOf(proposal)].filter(Boolean).join(', ')}</span>{' '}
            <Link to={`/jobs/${proposal.jobId}`}>
              job {proposal.jobNumber}, {proposal.person}
            </Link>
          </li>
        ))}
      </ul>
    </>
  );
}

function figuresOf({ figures }: ProposalView): readonly string[] {
  return figures.map(({ figure }) => figure);
}

interface ProposedProps {
  readonly sheet: SheetView;
  readonly draft: SheetDraft;
  /** Those for this list alone; all of them on the page of the sheet itself. */
  readonly list: SheetList | undefined;
  readonly onJump: (list: SheetList, line?: string) => void;
}

/** The same beside the draft: a figure goes into its line at one press. */
export function Proposed({ sheet, draft, list: shown, onJump }: ProposedProps): ReactElement | null {
  const { data: all = [] } = useProposals(sheet.revisionId);
  const proposals = all.filter(({ list }) => shown === undefined || list === shown);
  const [refusal, setRefusal] = useState<unknown>();
  if (proposals.length === 0) return null;
  const settle = async (entryId: string, how: 'taken' | 'left'): Promise<void> => {
    try {
      await ask(ENDPOINTS.sheets.settle, { entryId, body: { how } });
      await queryClient.invalidateQueries({ queryKey: ['sheets', sheet.revisionId, 'proposals'] });
    } catch (error) {
      setRefusal(error);
    }
  };
  return (
    <div className="sheet-box mb-3">
      <h2>Next time, from jobs</h2>
      <Wrong error={refusal} />
      <ul className="findings">
        {proposals.map((proposal) => {
          const list = SHEET_LISTS.find((one) => one === proposal.list) ?? 'steps';
          const withIt = putIn(draft.file, proposal);
          return (
            <li key={proposal.entryId}>
              {proposal.text}{' '}
              {proposal.line ? (
                <Button variant="quiet" className="p-0" onClick={() => onJump(list, proposal.line ?? undefined)}>
                  {[proposal.line, figuresOf(proposal).join(' to ')].filter(Boolean).join(': ')}
                </Button>
              ) : null}{' '}
              <span className="soft">
                job {proposal.jobNumber}, {proposal.person}
              </span>
              <div className="keys mt-1">
                {withIt ? (
                  <Button
                    variant="primary"
                    onClick={() => {
                      draft.change(withIt);
                      onJump(list, proposal.line ?? undefined);
                      void settle(proposal.entryId, 'taken');
                    }}
                  >
                    Put it in the line
                  </Button>
                ) : null}
                <Button variant="plain" onClick={() => void settle(proposal.entryId, 'taken')}>
                  It is in the draft
                </Button>
                <Button variant="plain" onClick={() => void settle(proposal.entryId, 'left')}>
                  Leave it
                </Button>
              </div>
            </li>
          );
        })}
      </ul>
    </div>
  );
}

/** The draft with the figures of a proposal in their line, as the shop's own; none when they are not for one. */
function putIn(file: SheetFile, proposal: ProposalView): SheetFile | undefined {
  const list = VALUE_LISTS.find((one) => one === proposal.list);
  const figures = proposal.figures.flatMap(({ field, figure }) => (field === null ? [] : [{ field, figure }]));
  if (!list || proposal.line === null || figures.length === 0) return undefined;
  const line = find<{ readonly ref: string }>(file[list], proposal.line);
  if (!line) return undefined;
  const source = `job ${proposal.jobNumber}: ${proposal.text}`;
  const changed = withFigures(list, line as unknown as PlainLine, figures, { trust: 'shop', source });
  return { ...file, [list]: file[list].map((one) => (one.ref === line.ref ? changed : one)) } as unknown as SheetFile;
}
