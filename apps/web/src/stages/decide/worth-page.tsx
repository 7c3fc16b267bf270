import { labourHours, comebackShare, needsOf, waysToGo, type Parts, type WayProposal } from '@jubb/book';
import { ENDPOINTS, type ShopView } from '@jubb/wire';
import { workings, wording } from '@jubb/core';
import { useQuery } from '@tanstack/react-query';
import type { ReactElement } from 'react';
import Table from 'react-bootstrap/Table';
import FormControl from 'react-bootstrap/FormControl';
import Button from 'react-bootstrap/Button';
import FormLabel from 'react-bootstrap/FormLabel';
import { ask } from '../../link/client.ts';
import { useSession } from '../../link/queries.ts';
import { Drawn } from '../../drawings/drawn.tsx';
import { useHere } from '../../job/use-job.ts';
import { percentWords, useMoney, wholeText } from '../../kit/money.ts';
import { Care, Loading, Title, Wrong } from '../../kit/pieces.tsx';
import { useDraft } from '../../kit/prefs.ts';
import { JobFrame } from '../../job/job-frame.tsx';
import { plannedOption, totalOf } from './quote-draft.ts';
import { useParts } from '../../job/use-parts.ts';

interface Row {
  readonly option: string;
  readonly cost: string;
  readonly seasons: string;
  readonly spread: string;
  readonly comeback: string;
  readonly comebackCost: string;
  readonly down: string;
}

const COLUMNS = [
  ['option', 'Way', 'text'],
  ['cost', 'Costs now', 'money'],
  ['seasons', 'Lasts, seasons', 'number'],
  ['spread', '±', 'number'],
  ['comeback', 'Comes back', 'share'],
  ['comebackCost', 'A comeback costs', 'money'],
  ['down', 'Days down', 'number'],
] as const;

interface Typed {
  readonly rows: readonly Row[];
  readonly dayCost: string;
}

export function WorthPage(): ReactElement {
  return (
    <JobFrame>
      <Worth />
    </JobFrame>
  );
}

function Worth(): ReactElement {
  const { parts, error } = useParts();
  const { data: session } = useSession();
  if (!parts || !session) return error ? <Wrong error={error} /> : <Loading what="what it costs" />;
  return <Ways parts={parts} shop={session.shop} />;
}

function asTyped({ way, costMinor, seasons, spread, comeback, comebackMinor, downDays }: WayProposal): Row {
  return {
    option: way,
    cost: wholeText(costMinor),
    seasons: String(seasons),
    spread: String(spread),
    comeback: percentWords(comeback),
    comebackCost: wholeText(comebackMinor),
    down: String(downDays),
  };
}

function Ways({ parts, shop }: { readonly parts: Parts; readonly shop: ShopView }): ReactElement {
  const { job, state } = useHere();
  const money = useMoney();
  const { data: history } = useQuery({
    queryKey: ['job', job.id, 'comebacks'],
    queryFn: () => ask(ENDPOINTS.jobs.comebacks, { id: job.id }),
  });
  const hours = labourHours(state.sheet, job.scope);
  // Parts and hours as they would be quoted, without tax and without what is only offered.
  const planned = plannedOption(parts, state, hours, shop);
  const plannedMinor = totalOf({ ...planned, lines: planned.lines.filter(({ optional }) => !optional) }, '0');
  const share = comebackShare(history ?? { handedOver: 0, cameBack: 0 });
  const proposed = waysToGo(plannedMinor, share).map(asTyped);
  const initial: Typed = {
    rows: proposed,
    dayCost: '0',
  };
  const [typed, setTyped] = useDraft<Typed>(`worth.${job.id}`, initial);
  const result = workings.run('decide.repair', { options: typed.rows, dayCost: typed.dayCost });
  const run = result?.ok ? result.run : undefined;
  const output = run?.output as
    | {
        best: string;
        perSeason: number;
        changes: string;
        ranked: readonly { option: string; inAll: number; perSeason: number; breakEven?: number }[];
      }
    | undefined;
  const set = (place: number, change: Partial<Row>): void =>
    setTyped({ ...typed, rows: typed.rows.map((one, index) => (index === place ? { ...one, ...change } : one)) });
  const issues = result && !result.ok ? result.issues : [];
  return (
    <>
      <Title
        sub={`${needsOf(state).length} things to renew and ${hours} h of labour: ${money(plannedMinor)} before tax. ${history ? `Of ${history.handedOver} handed over by this sheet, ${history.cameBack} came back within a year.` : ''}`}
      >
        Worth it?
      </Title>
      {workings.describe('decide.repair')?.cautions.map((words) => (
        <Care key={words}>{words}</Care>
      ))}
      <div className="table-wide" role="region" aria-label="Ways and what they cost" tabIndex={0}>
        <Table>
          <thead>
            <tr>
              {COLUMNS.map(([name, label]) => (
                <th key={name} scope="col">
                  {label}
                </th>
              ))}
              <th scope="col">
                <span className="visually-hidden">Take out</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {typed.rows.map((line, place) => (
              <tr key={place}>
                {COLUMNS.map(([name, label, sort]) => {
                  const issue = issues.find(({ field }) => field === `options[${place}].${name}`);
                  return (
                    <td key={name}>
                      <FormControl
                        className={`${sort === 'text' ? '' : 'fig'} ${issue ? 'is-invalid' : ''}`}
                        style={{ minWidth: sort === 'text' ? 150 : 84 }}
                        aria-label={`${label}, ${line.option}`}
                        aria-invalid={issue !== undefined}
                        maxLength={40}
                        value={line[name]}
                        onChange={(event) => set(place, { [name]: event.target.value })}
                      />
                    </td>
                  );
                })}
                <td>
                  {typed.rows.length > 2 ? (
                    <Button variant="quiet" onClick={() => setTyped({ ...typed, rows: typed.rows.filter((_, index) => index !== place) })}>
                      Out<span className="visually-hidden"> {line.option}</span>
                    </Button>
                  ) : null}
                </td>
              </tr>
            ))}
          </tbody>
        </Table>
      </div>
      <div className="d-flex flex-wrap gap-3 align-items-end mt-2 mb-3">
        <div>
          <FormLabel htmlFor="day-cost">A day down costs the customer</FormLabel>
          <FormControl
            id="day-cost"
            className="fig"
            maxLength={12}
            value={typed.dayCost}
            onChange={(event) => setTyped({ ...typed, dayCost: event.target.value })}
          />
        </div>
        <Button
          variant="plain"
          disabled={typed.rows.length >= 8}
          onClick={() =>
            setTyped({
              ...typed,
              rows: [...typed.rows, { ...proposed[0]!, option: `way ${typed.rows.length + 1}`, seasons: '2', down: '2' }],
            })
          }
        >
          One more way
        </Button>
        <Button variant="quiet" onClick={() => setTyped(undefined)}>
          Begin again
        </Button>
      </div>
      <div aria-live="polite">
        {issues.length > 0 ? (
          <ul className="v-out">
            {issues.map((issue) => (
              <li key={issue.field}>{wording(issue)}</li>
            ))}
          </ul>
        ) : null}
        {output && run?.drawing ? (
          <div className="two form-first">
            <div>
              <p className="mb-1">
                <span className="soft">Cheapest by season</span>
                <br />
                <span className="fig fs-2">{output.best}</span> <span className="fig fs-4">{money(output.perSeason * 100)} a season</span>
              </p>
              <p>{output.changes}</p>
              <Table>
                <thead>
                  <tr>
                    <th scope="col">Way</th>
                    <th scope="col">In all</th>
                    <th scope="col">A season</th>
                    <th scope="col">Must last</th>
                  </tr>
                </thead>
                <tbody>
                  {output.ranked.map((line) => (
                    <tr key={line.option}>
                      <td>{line.option}</td>
                      <td className="fig">{money(line.inAll * 100)}</td>
                      <td className="fig">{money(line.perSeason * 100)}</td>
                      <td className="fig">{line.breakEven === undefined ? 'never' : `${line.breakEven.toFixed(1)} seasons`}</td>
                    </tr>
                  ))}
                </tbody>
              </Table>
            </div>
            <div>
              <h2>What the answer hangs on</h2>
              <p className="soft mb-1">
                Lead over the second, a season, with one figure turned down (open) or up (solid). Left of 0 the second is better.
              </p>
              <Drawn drawing={run.drawing} name="What the answer hangs on" />
            </div>
          </div>
        ) : null}
      </div>
    </>
  );
}
