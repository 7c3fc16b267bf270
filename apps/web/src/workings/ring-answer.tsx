import { formatQuantity, thinned } from '@jubb/core';
import { useState, type ReactElement } from 'react';
import Button from 'react-bootstrap/Button';
import Table from 'react-bootstrap/Table';
import { Drawn } from '../drawings/drawn.tsx';
import { VerdictShape } from '../drawings/limit-strip.tsx';
import type { AnswerProps } from './answer-props.ts';
import { Way } from './way.tsx';

/** A ring as the search has it; what is not known of it is not there. */
interface Found {
  readonly name: string;
  readonly so: 'in' | 'unsure' | 'out';
  readonly shelf: boolean;
  readonly inside: number;
  readonly section: number;
  readonly squeeze?: number;
  readonly stretch?: number;
  readonly fill?: number;
  readonly drag?: number;
  readonly old?: string;
  readonly why: string;
}

const share = (part: number | undefined): string => (part === undefined ? '–' : formatQuantity(part, 'ratio', '%').replace(/\.\d+/u, ''));

/** Rings that are looked through, ranked, in one view: the one to take, any other beside it in its groove, and what is wrong with each. */
export function RingAnswer({ working, run, isExample }: AnswerProps): ReactElement {
  const { which, each, tried, wants, bottom } = run.output as {
    readonly which: string;
    readonly each: readonly Found[];
    readonly tried?: string;
    readonly wants?: number;
    readonly bottom?: number;
  };
  const [looked, setLooked] = useState('');
  const one = each.find(({ name }) => name === looked) ?? each[0];
  const has = (key: keyof Found): boolean => each.some((ring) => ring[key] !== undefined);
  const drawing =
    run.drawing?.kind === 'gland' && one ? { ...run.drawing, section: one.section * (1 - thinned(one.stretch ?? 0)) } : undefined;
  return (
    <>
      <p className={`answer-main ${isExample ? 'answer-example' : ''}`}>
        <span className="soft">{isExample ? 'Example: take' : 'Take'}</span>
        <br />
        <span className="fig fs-2">{which}</span>
      </p>
      {tried === undefined ? null : <p>The one in the hand: {tried}.</p>}
      {wants === undefined ? null : (
        <p>
          It wants a groove at least <span className="fig">{formatQuantity(wants, 'length')}</span> wide.
        </p>
      )}
      {bottom === undefined ? null : (
        <p>
          Bottom of the groove, as the tried one tells it: <span className="fig">{formatQuantity(bottom, 'length')}</span>.
        </p>
      )}
      {drawing && one ? (
        <figure className="mb-3">
          <Drawn drawing={drawing} name={`${working.title} ${one.name}`} />
          <figcaption>
            <b className={`fig v-${one.so}`}>
              <VerdictShape verdict={one.so} /> {one.name}
            </b>
            : {one.why}
          </figcaption>
        </figure>
      ) : null}
      <div className="table-wide" role="region" aria-label={`Rings, the best first; ${each.length}`} tabIndex={0}>
        <Table className="rings">
          <thead>
            <tr>
              <th scope="col">Ring</th>
              {has('squeeze') ? <th scope="col">squeezed</th> : null}
              {has('stretch') ? <th scope="col">stretched</th> : null}
              {has('fill') ? <th scope="col">full</th> : null}
              {has('drag') ? <th scope="col">first push</th> : null}
            </tr>
          </thead>
          <tbody>
            {each.map((ring) => (
              <tr key={`${ring.name} ${String(ring.shelf)}`} className={ring === one && drawing ? 'on' : ''}>
                <th scope="row">
                  <b className={`fig v-${ring.so}`}>
                    <VerdictShape verdict={ring.so} />
                    <span className="visually-hidden"> {ring.so}</span>
                  </b>{' '}
                  {drawing ? (
                    <Button variant="quiet" className="p-0 fig text-start" aria-pressed={ring === one} onClick={() => setLooked(ring.name)}>
                      {ring.name}
                    </Button>
                  ) : (
                    <span className="fig">{ring.name}</span>
                  )}
                  <div className="fw-normal">
                    <span className="soft fig">
                      {formatQuantity(ring.inside, 'length')} × {formatQuantity(ring.section, 'length')}
                    </span>
                    {ring.shelf ? ' · on the shelf' : null}
                    {drawing && ring.why !== 'right' ? <div>{ring.why}</div> : null}
                    {has('old') ? <div>the old one: {ring.old ?? 'cannot have been'}</div> : null}
                  </div>
                </th>
                {has('squeeze') ? <td className="fig">{share(ring.squeeze)}</td> : null}
                {has('stretch') ? <td className="fig">{share(ring.stretch)}</td> : null}
                {has('fill') ? <td className="fig">{share(ring.fill)}</td> : null}
                {has('drag') ? <td className="fig">{ring.drag === undefined ? '–' : formatQuantity(ring.drag, 'force')}</td> : null}
              </tr>
            ))}
          </tbody>
        </Table>
      </div>
      <Way steps={run.steps} />
    </>
  );
}
