import { ENDPOINTS } from '@jubb/wire';
import { addressOf } from '../link/client.ts';
import { find, type SheetFile, type Step } from '@jubb/sheet';
import type { ReactElement } from 'react';

/** The shop's own page that is pinned to a step; opens the PDF there. */
export function PinnedPage({ step, file }: { readonly step: Step; readonly file: SheetFile }): ReactElement | null {
  const { pinned } = step;
  const document = find(file.documents, pinned?.document);
  if (!pinned || !document) return null;
  const words = `${document.title}, page ${pinned.page}`;
  if (document.paper === undefined) return <span className="soft">{words}</span>;
  return (
    <a href={`${addressOf(ENDPOINTS.papers.read, { id: document.paper })}#page=${pinned.page}`} target="_blank" rel="noreferrer">
      {words}
    </a>
  );
}
