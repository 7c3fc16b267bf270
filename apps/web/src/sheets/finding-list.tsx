import type { Finding } from '@jubb/sheet';
import type { ReactElement } from 'react';
import Button from 'react-bootstrap/Button';
import { Loading } from '../kit/pieces.tsx';

interface FindingListProps {
  readonly findings: readonly Finding[] | undefined;
  /** Goes to the line; none on a sheet that is only read. */
  readonly onJump?: ((finding: Finding) => void) | undefined;
}

/** What the checker says, the gravest first, each with what mends it. */
export function FindingList({ findings, onJump }: FindingListProps): ReactElement {
  if (!findings) return <Loading what="what is missing" />;
  if (findings.length === 0) return <p>Nothing is missing, and nothing contradicts.</p>;
  return (
    <ul className="findings">
      {findings.map((finding) => (
        <li key={finding.path + finding.say}>
          <b className={`finding-${finding.severity}`}>{finding.severity}</b> {finding.say}.{' '}
          {onJump ? (
            <Button variant="quiet" className="p-0" onClick={() => onJump(finding)}>
              {finding.mend}
            </Button>
          ) : (
            <span className="soft">{finding.mend}</span>
          )}
        </li>
      ))}
    </ul>
  );
}
