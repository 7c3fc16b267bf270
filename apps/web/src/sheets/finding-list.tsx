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
        <FindingLine key={finding.path + finding.say} finding={finding} onJump={onJump && (() => onJump(finding))} />
      ))}
    </ul>
  );
}

interface FindingLineProps {
  readonly finding: Pick<Finding, 'severity' | 'say' | 'mend'>;
  /** Where it is so. */
  readonly about?: string;
  readonly onJump: (() => void) | undefined;
}

export function FindingLine({ finding: { severity, say, mend }, about, onJump }: FindingLineProps): ReactElement {
  return (
    <li>
      <b className={`finding-${severity}`}>{severity}</b> {say}. {about === undefined ? null : <span className="soft">{about}. </span>}
      {onJump ? (
        <Button variant="quiet" className="p-0" onClick={onJump}>
          {mend}
        </Button>
      ) : (
        <span className="soft">{mend}</span>
      )}
    </li>
  );
}
