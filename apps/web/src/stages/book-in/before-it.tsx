import { SEAL_FAILURE_WORDS, failedWords, owedWords, spoken, type OwedLine } from '@jubb/book';
import { baseOf, find, type Hazard, type SheetFile } from '@jubb/sheet';
import type { UnitHistory } from '@jubb/wire';
import type { ReactElement } from 'react';
import { Link } from 'react-router';
import Button from 'react-bootstrap/Button';
import { Care } from '../../kit/pieces.tsx';
import { dayWords } from '../../kit/days.ts';
import type { Answers } from './which-unit.tsx';

interface OwedBeforeProps {
  readonly lines: readonly OwedLine[];
  readonly machineId: string | undefined;
  /** Takes one into what this job is about. */
  readonly onDo: (what: string) => void;
}

/** What earlier jobs of the customer put off: of this machine, or of another of theirs. */
export function OwedBefore({ lines, machineId, onDo }: OwedBeforeProps): ReactElement | null {
  const shown = lines.filter((line) => machineId === undefined || line.machineId === machineId);
  if (shown.length === 0) return null;
  return (
    <Care title="Owed">
      {shown.map((line) => (
        <div key={line.entryId} className="d-flex gap-3 align-items-center">
          <span className="flex-grow-1">
            {owedWords(spoken(line))}
            {machineId === undefined ? `, ${line.machine}` : ''}. <Link to={`/jobs/${line.jobId}`}>Job {line.jobNumber}</Link>, the customer
            then: {line.told}.
          </span>
          <Button variant="plain" className="text-nowrap" onClick={() => onDo(line.what)}>
            Do it now
          </Button>
        </div>
      ))}
    </Care>
  );
}

interface LastTimeProps {
  readonly jobs: UnitHistory['jobs'];
  readonly onSame: (sheetKey: string, variant: string | undefined) => void;
}

/** So many seals of before are seen at a glance. */
const MOST_SEALS = 4;

/** What this very unit went through here: why it failed last time stands first, then what its seals had. */
export function LastTime({ jobs, onSame }: LastTimeProps): ReactElement | null {
  const [last, ...others] = jobs;
  if (!last) return null;
  const sealed = jobs.flatMap(({ number, seals }) => seals.map((seal) => ({ number, ...seal }))).slice(0, MOST_SEALS);
  return (
    <Care title="Last time">
      {last.renewed.length > 0
        ? last.renewed
            .toSorted((one, other) => Number(other.cause !== null) - Number(one.cause !== null))
            .map(({ part, reason, cause }) => `${part}${cause ? `, cause ${failedWords(cause)}` : reason ? ` (${reason})` : ''}`)
            .join('; ')
        : last.complaint}
      {sealed.map(({ number, part, why }) => (
        <div key={`${number} ${part}`}>
          {part}: {SEAL_FAILURE_WORDS[why]} <span className="soft">(job {number})</span>
        </div>
      ))}
      <div>
        <Link to={`/jobs/${last.id}`}>job {last.number}</Link>, {dayWords(last.bookedAt)}: {last.complaint}
        {others.length > 0 ? `; ${others.length} more before` : ''}
      </div>
      <Button variant="plain" className="mt-1" onClick={() => onSame(last.sheetKey, last.scope?.variant)}>
        Same sheet as then
      </Button>
    </Care>
  );
}

interface IdentifiedProps {
  readonly file: SheetFile;
  readonly variant: string | undefined;
  readonly answers: Answers;
  readonly onBack: () => void;
}

/** Which sheet and variant it is, and by what it was told. */
export function Identified({ file, variant, answers, onBack }: IdentifiedProps): ReactElement {
  const which = find(file.variants ?? [], variant);
  const told = Object.entries(answers).map(([feature, found]) => `${feature.replaceAll('-', ' ')} ${found}`);
  return (
    <div className="sheet-box">
      <b className="fs-5">{file.title}</b>
      {which ? `, ${which.name}. ` : '. '}
      {which?.differs ? <span>{which.differs} </span> : null}
      {told.length > 0 ? <span className="soft">Told by {told.join(', ')}. </span> : null}
      <Button variant="quiet" className="p-0" onClick={onBack}>
        It is another one
      </Button>
    </div>
  );
}

/** Dangers that a unit brings in with it. */
const BROUGHT: readonly Hazard[] = ['pressure', 'refrigerant', 'electric', 'spring'];
const HEAVY_KG = 20;

export function Receiving({ file }: { readonly file: SheetFile }): ReactElement | null {
  const heavy = file.mass !== undefined && baseOf(file.mass, 'mass') >= HEAVY_KG;
  const cautions = file.cautions.filter((caution) => caution.hazards?.some((hazard) => BROUGHT.includes(hazard)));
  if (!heavy && cautions.length === 0) return null;
  return (
    <Care>
      {heavy ? <div>It weighs {file.mass}: hoist, or two people. Oil runs out when it is tipped.</div> : null}
      {cautions.slice(0, 3).map((caution) => (
        <div key={caution.ref}>
          {caution.text} {caution.licensed ? `${caution.licensed}.` : ''}
        </div>
      ))}
    </Care>
  );
}
