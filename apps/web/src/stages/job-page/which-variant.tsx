import { entryWords } from '@jubb/book';
import { find, type Variant } from '@jubb/sheet';
import { Suspense, lazy, useState, type ReactElement } from 'react';
import Button from 'react-bootstrap/Button';
import { AskLine } from '../../kit/ask-line.tsx';
import { useHere } from '../../job/use-job.ts';

// Its words come with the columns of the sheet's tables.
const ReshapingLines = lazy(async () => ({ default: (await import('../../sheets/reshaping-lines.tsx')).ReshapingLines }));

/** Which of the sheet's variants it is: asked for while nobody knows, and what has no place any more once it is another one. */
export function WhichVariant(): ReactElement | null {
  const { sheet, state } = useHere();
  const { variant, misfits } = state;
  const isOpen = variant?.by === 'nobody' && !state.handedOver;
  if (!isOpen && misfits.length === 0) return null;
  return (
    <section>
      {isOpen ? (
        <>
          <h2>Which one is it?</h2>
          <p className="mb-1">
            Not known yet; counts and figures are those of <b className="brass">{variant.variant.name}</b>. <ItIs word="Say which" />
          </p>
        </>
      ) : null}
      {misfits.length > 0 ? (
        <>
          <h2>Has no place on this one</h2>
          <ul className="list-unstyled mb-1">
            {misfits.map((entry) => (
              <li key={entry.id} className="mb-1">
                {entryWords(entry, sheet)} <span className="soft">Strike it, or look at it again.</span>
              </li>
            ))}
          </ul>
        </>
      ) : null}
    </section>
  );
}

/** The variant that a job goes by, as a fact of it, with what is different and the way to say that it is another. */
export function TheVariant(): ReactElement | null {
  const { job, state } = useHere();
  if (!state.variant) return null;
  const { variant, by } = state.variant;
  return (
    <>
      <dt>Which one</dt>
      <dd>
        {variant.name}
        {by === 'nobody' ? <span className="trust ms-1">not known yet</span> : null}
        {variant.differs ? <span className="soft"> {variant.differs}</span> : null}{' '}
        {state.handedOver ? null : <ItIs word="It is another one" />}
        <Suspense>
          <ReshapingLines file={job.sheet.file} of={variant} />
        </Suspense>
      </dd>
    </>
  );
}

function ItIs({ word }: { readonly word: string }): ReactElement {
  const { job, sheet, state, keep } = useHere();
  const [isAsked, setAsked] = useState(false);
  const { variants = [] } = job.sheet.file;
  const others = variants.filter(({ ref }) => state.variant?.by === 'nobody' || ref !== state.variant?.variant.ref);
  return (
    <>
      <Button variant="quiet" className="p-0" onClick={() => setAsked(true)}>
        {word}
      </Button>
      {isAsked ? (
        <AskLine
          about={`${job.id}.variant`}
          title="Which one is it?"
          act="It is this one"
          choice={{ name: 'variant', label: 'Which one', options: others.map(({ ref, name }) => [ref, name]) }}
          fields={({ variant }) => [
            {
              name: 'seen',
              label: 'What shows it',
              required: true,
              longest: 300,
              hint: toldBy(find(variants, variant), sheet.features ?? []),
            },
          ]}
          onClose={() => setAsked(false)}
          onDone={({ variant = '', seen = '' }) => {
            keep({ kind: 'variant', payload: { variant, seen: seen.trim() } });
            setAsked(false);
          }}
        />
      ) : null}
    </>
  );
}

/** What a variant is told by, in words. */
function toldBy(variant: Variant | undefined, features: readonly { readonly ref: string; readonly ask: string }[]): string {
  if (!variant) return 'Which one first.';
  const tells = variant.tells.map(({ feature, is }) => `${find(features, feature)?.ask ?? feature} ${is}`);
  return `Told by: ${tells.join(' · ')}`;
}
