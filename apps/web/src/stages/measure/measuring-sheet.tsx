import { wearSince, workingsAt, readingFigure, verdictOf } from '@jubb/book';
import { find, limitQuantity, limitWindow, type Limit } from '@jubb/sheet';
import { unitBySymbol } from '@jubb/core';
import type { ReactElement } from 'react';
import { useSearchParams } from 'react-router';
import Table from 'react-bootstrap/Table';
import Button from 'react-bootstrap/Button';
import { LimitStrip, VerdictShape } from '../../drawings/limit-strip.tsx';
import { useHere } from '../../job/use-job.ts';
import { pickTool } from '../../kit/tool-pick.tsx';
import { useUnits } from '../../kit/units.ts';
import { dayWords } from '../../kit/days.ts';
import { ToolFitWords } from './tool-fit.tsx';
import { WorkedOut } from './worked-out.tsx';
import { useEarlier } from './use-earlier.ts';

/** Every limit of the sheet on one page: as found, as left, and as earlier rebuilds had it. */
export function MeasuringSheet(): ReactElement {
  const { sheet } = useHere();
  const asked = new Set(sheet.steps.flatMap(({ record }) => record.limit ?? []));
  const limits = sheet.limits.filter(({ ref }) => asked.has(ref));
  return (
    <section className="mb-3" aria-label="Measuring sheet">
      <h2>Measuring sheet</h2>
      <Table>
        <thead>
          <tr>
            <th scope="col">What</th>
            <th scope="col" style={{ width: 260 }}>
              Window
            </th>
            <th scope="col">Found</th>
            <th scope="col">Before</th>
          </tr>
        </thead>
        <tbody>
          {limits.map((limit) => (
            <LimitRow key={limit.ref} limit={limit} />
          ))}
        </tbody>
      </Table>
      <WorkedOut ids={workingsAt('measure', sheet.family)} />
    </section>
  );
}

function LimitRow({ limit }: { readonly limit: Limit }): ReactElement {
  const { job, sheet, state } = useHere();
  const units = useUnits();
  const [, setSearch] = useSearchParams();
  const quantity = limitQuantity(limit);
  const window = limitWindow(limit);
  const step = sheet.steps.find(({ record }) => record.limit === limit.ref);
  const readings = state.live.flatMap((entry) => (entry.kind === 'reading' && entry.payload.limit === limit.ref ? [entry] : []));
  const look = state.live.findLast((entry) => entry.kind === 'look' && entry.payload.limit === limit.ref);
  const seen = look?.kind === 'look' ? find(limit.looks ?? [], look.payload.look) : undefined;
  const last = readings.at(-1);
  const verdict = seen?.verdict ?? (last && verdictOf(last));
  const earlier = useEarlier(job.id, limit);
  const tool = pickTool(job.tools, limit.tool, undefined, last?.toolId ?? undefined);
  const write = (figure: number): string => units.reading(figure, quantity);
  return (
    <tr>
      <th scope="row" className="fw-normal">
        {step ? (
          <Button variant="quiet" className="p-0 text-start" onClick={() => setSearch({ step: step.ref })}>
            {limit.name}
          </Button>
        ) : (
          limit.name
        )}
        <div className="soft">{[limit.how, limit.between && `between ${limit.between}`].filter(Boolean).join(' ')}</div>
        {limit.kind !== 'look' && tool ? (
          <div>
            {tool.tag} {tool.name}: <ToolFitWords limit={limit} tool={tool} tools={job.tools} />
          </div>
        ) : null}
      </th>
      <td>
        {limit.kind === 'look' ? (
          (limit.looks ?? []).map(({ words }) => words).join(' · ')
        ) : (
          <LimitStrip
            name={limit.name}
            readings={last ? [readingFigure(limit, last.payload)] : []}
            before={earlier.map(({ figure }) => figure)}
            from={window.from}
            to={window.to}
            unit={unitBySymbol(quantity, undefined).symbol}
          />
        )}
      </td>
      <td>
        {verdict ? (
          <b className={`fig fs-5 v-${verdict}`}>
            <VerdictShape verdict={verdict} /> {verdict}
          </b>
        ) : (
          <span className="soft">not yet</span>
        )}
        {seen ? <div>{seen.words}</div> : null}
        {readings.map((entry, place) => (
          <div key={entry.id} className="fig">
            {readings.length > 1 ? (place === 0 ? 'found ' : 'left ') : ''}
            {write(readingFigure(limit, entry.payload))}
          </div>
        ))}
      </td>
      <td>
        {earlier.slice(0, 3).map((one) => (
          <div key={one.jobNumber + one.at}>
            <span className="fig">{write(one.figure)}</span> <span className="soft">{dayWords(one.at)}</span>
          </div>
        ))}
        {last && earlier[0] ? (
          <WearSince limit={limit} now={readingFigure(limit, last.payload)} at={last.takenAt} before={earlier[0]} />
        ) : null}
      </td>
    </tr>
  );
}

/** What it moved since the last rebuild, and how long it lasts at that rate. */
function WearSince({
  limit,
  now,
  at,
  before,
}: {
  readonly limit: Limit;
  readonly now: number;
  readonly at: string;
  readonly before: { readonly figure: number; readonly at: string };
}): ReactElement | null {
  const units = useUnits();
  const wear = wearSince(limit, before, { figure: now, at });
  if (!wear) return null;
  const { moved, daysLeft } = wear;
  return (
    <div className="soft">
      moved {units.reading(moved, limitQuantity(limit))}
      {daysLeft === undefined
        ? ''
        : `, some ${daysLeft > 700 ? `${Math.round(daysLeft / 365)} years` : `${Math.round(daysLeft)} days`} left at that rate`}
    </div>
  );
}
