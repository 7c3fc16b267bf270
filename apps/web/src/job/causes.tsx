import { likelyCauses, type AnyKeptEntry } from '@jubb/book';
import type { SheetFile } from '@jubb/sheet';
import type { ReactElement } from 'react';
import { useHere } from './use-job.ts';
import '../sheets/sheets.scss';
import { percentWords } from '../kit/money.ts';

const SPEAKS_WORDS = {
  'strongly for': 'strongly for it',
  for: 'for it',
  against: 'against it',
  'strongly against': 'strongly against it',
} as const;

interface CauseListProps {
  readonly file: SheetFile;
  readonly picks: readonly string[];
  readonly entries: readonly AnyKeptEntry[];
}

/** Likely causes with what moved them, and the checks that would tell before anything comes apart. */
export function CauseList({ file, picks, entries }: CauseListProps): ReactElement {
  const { lines, checks } = likelyCauses(file, picks, entries);
  const nameOf = (ref: string): string => file.limits.find((limit) => limit.ref === ref || limit.ref.startsWith(`${ref}--`))?.name ?? ref;
  return (
    <>
      <ol className="causes" aria-label="Likely causes">
        {lines.map(({ cause, chance, before, because }) => (
          <li key={cause.ref}>
            <div className="cause-line">
              <span>{cause.name}</span>
              <b className="fig">{percentWords(chance)}</b>
            </div>
            <div className="cause-rule" aria-hidden="true">
              <i style={{ width: `${chance * 100}%` }} />
              <u style={{ left: `${before * 100}%` }} />
            </div>
            {because.length > 0 ? (
              <div className="soft">{because.map(({ check, speaks }) => `${nameOf(check)} speaks ${SPEAKS_WORDS[speaks]}`).join('; ')}</div>
            ) : null}
          </li>
        ))}
      </ol>
      {checks.length > 0 ? (
        <p className="mb-1">
          <b>Before it comes apart:</b>{' '}
          {checks.map(({ limit, tells }, index) => (
            <span key={limit.ref}>
              {index > 0 ? '; ' : ''}
              {limit.name.toLowerCase()} <span className="soft">(tells of {tells.join(', ')})</span>
            </span>
          ))}
          .
        </p>
      ) : null}
      <p className="soft mb-0">Where to look first, not a proof: as if one cause were at work.</p>
    </>
  );
}

/** The same on the job's page, reordered by the readings as they come. */
export function LikelyCauses(): ReactElement | null {
  const { job, sheet, state } = useHere();
  const picks = job.scope?.picks ?? [];
  if (picks.length === 0) return null;
  return (
    <section>
      <h2>Likely causes</h2>
      <CauseList file={sheet} picks={picks} entries={state.live} />
    </section>
  );
}
