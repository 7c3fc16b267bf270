import { workings, type WorkingRun } from '@jubb/core';
import type { ReactElement } from 'react';
import { Link } from 'react-router';
import { Drawn } from '../drawings/drawn.tsx';
import { Title } from '../kit/pieces.tsx';

interface Shown {
  readonly id: string;
  readonly title: string;
  readonly drawing: NonNullable<WorkingRun['drawing']>;
}

/** Every drawing that a working makes, from its own example: for whoever changes one. */
const SHOWN: readonly Shown[] = workings.list().flatMap(({ id, title, example }) => {
  const result = workings.run(id, example);
  return result?.ok && result.run.drawing ? [{ id, title, drawing: result.run.drawing }] : [];
});

export function DrawingsPage(): ReactElement {
  const kinds = [...new Set(SHOWN.map(({ drawing }) => drawing.kind))].toSorted();
  return (
    <>
      <Title sub={`${SHOWN.length} drawings of ${kinds.length} kinds, from the examples of the workings`}>Drawings</Title>
      {kinds.map((kind) => (
        <section key={kind}>
          <h2>{kind}</h2>
          {SHOWN.filter(({ drawing }) => drawing.kind === kind).map(({ id, title, drawing }) => (
            <figure key={id} className="mb-4">
              <figcaption className="mb-2">
                <Link to={`/workings/${id}`}>{title}</Link>
              </figcaption>
              <Drawn drawing={drawing} name={title} />
            </figure>
          ))}
        </section>
      ))}
    </>
  );
}
