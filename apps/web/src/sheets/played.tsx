import type { PlayFinding } from '@jubb/play';
import type { SheetFile } from '@jubb/sheet';
import type { ReactElement } from 'react';
import ProgressBar from 'react-bootstrap/ProgressBar';
import { FindingLine } from './finding-list.tsx';
import { usePlayCheck } from './use-play.ts';

interface PlayedProps {
  /** None while it does not hold together: there is nothing to be played. */
  readonly file: SheetFile | undefined;
  readonly onJump?: ((finding: PlayFinding) => void) | undefined;
}

/** What a mechanic finds who works every task, in every variant and way, to the end: what is left over, what never came off. */
export function Played({ file, onJump }: PlayedProps): ReactElement {
  const { check, progress } = usePlayCheck(file);
  if (!file) return <p className="soft">It is played through once nothing is to be mended first.</p>;
  if (!check)
    return (
      <div className="progress my-2">
        <ProgressBar
          isChild
          now={progress?.done ?? 0}
          max={progress?.of ?? 1}
          label={progress ? `${progress.done} of ${progress.of} ways` : ''}
          aria-label="Ways played through"
        />
      </div>
    );
  const ways = check.routes === 1 ? 'One way through it' : `${check.routes} ways through it`;
  if (check.findings.length === 0) return <p>{ways}, each from book-in to hand-over: nothing left over.</p>;
  return (
    <>
      <p className="mb-1">{ways}, played from book-in to hand-over:</p>
      <ul className="findings">
        {check.findings.map((finding) => (
          <FindingLine
            key={finding.say}
            finding={finding}
            about={`${finding.on}${finding.routes > 1 ? `, and ${finding.routes - 1} more` : ''}`}
            onJump={onJump && (() => onJump(finding))}
          />
        ))}
      </ul>
    </>
  );
}
