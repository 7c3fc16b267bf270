import type { Feature } from '@jubb/sheet';
import { candidatesOf, featuresOf, picksOf, readingU, type UnitCandidate } from '@jubb/sheet/editing';
import type { IdentitySheet } from '@jubb/wire';
import { formatQuantity, parseQuantity, rankCandidates, rankQuestions, tellsApart, type Found, type Quantity } from '@jubb/core';
import { useMemo, useState, type ReactElement } from 'react';
import { Link } from 'react-router';
import FormLabel from 'react-bootstrap/FormLabel';
import FormSelect from 'react-bootstrap/FormSelect';
import Button from 'react-bootstrap/Button';
import FormControl from 'react-bootstrap/FormControl';
import { useFamilies, useIdentities } from '../../sheets/queries.ts';
import { Loading, Wrong } from '../../kit/pieces.tsx';
import { percentWords } from '../../kit/money.ts';

/** From this chance on it is said which one it is. */
const SURE = 0.9;

/** What was found, by feature, as it was typed or picked. */
export type Answers = Readonly<Record<string, string>>;

interface WhichUnitProps {
  readonly family: string;
  readonly answers: Answers;
  readonly onFamily: (family: string) => void;
  readonly onAnswers: (answers: Answers) => void;
  readonly onTake: (candidate: UnitCandidate, revisionId: string) => void;
}

/** A short run of questions, the most telling first, until one sheet and variant is left. */
export function WhichUnit({ family, answers, onFamily, onAnswers, onTake }: WhichUnitProps): ReactElement {
  const { data: sheets, error } = useIdentities(family);
  const families = useFamilies();
  return (
    <div>
      <FormLabel htmlFor="which-family">What kind of unit is it?</FormLabel>
      <FormSelect
        id="which-family"
        className="mb-2"
        value={family}
        onChange={(event) => {
          onFamily(event.target.value);
          onAnswers({});
        }}
      >
        <option value="">pick the family</option>
        {families.map((one) => (
          <option key={one}>{one}</option>
        ))}
      </FormSelect>
      <Wrong error={error} />
      {family !== '' && !sheets && !error ? <Loading what="what tells them apart" /> : null}
      <p className="soft mb-1">
        At hand: <Link to="/workings/gear.ratio">ratio from teeth</Link>, <Link to="/workings/thread.identify">which thread is it</Link>,{' '}
        <Link to="/workings/torque.breakaway">it moved at this torque</Link>. What is typed here stays.
      </p>
      {sheets?.length === 0 ? <NewModel family={family} why="No sheet of this family is here yet." /> : null}
      {sheets && sheets.length > 0 ? (
        <Questions family={family} sheets={sheets} answers={answers} onAnswers={onAnswers} onTake={onTake} />
      ) : null}
    </div>
  );
}

type QuestionsProps = Pick<WhichUnitProps, 'answers' | 'onAnswers' | 'onTake' | 'family'> & { readonly sheets: readonly IdentitySheet[] };

function Questions({ family, sheets, answers, onAnswers, onTake }: QuestionsProps): ReactElement {
  const candidates = useMemo(() => candidatesOf(sheets), [sheets]);
  const features = useMemo(() => featuresOf(sheets), [sheets]);
  const [skipped, setSkipped] = useState<readonly string[]>([]);
  const found = foundOf(answers, features);
  const plain = candidates.map(({ candidate }) => candidate);
  const ranked = rankCandidates(plain, found);
  const questions = rankQuestions(plain, found, (feature) => readingU(features, feature));
  const open = questions.filter(({ feature }) => !skipped.includes(feature));
  const asked = features.find(({ ref }) => ref === open[0]?.feature);
  const named = (id: string): UnitCandidate => candidates.find(({ candidate }) => candidate.id === id)!;
  const [best] = ranked;
  const sure = best && best.chance >= SURE && best.against.length === 0;
  const noneFits = best !== undefined && found.size > 0 && best.against.length > 0 && best.against.length * 2 >= found.size;
  const revisionOf = (candidate: UnitCandidate): string => sheets.find(({ key }) => key === candidate.sheetKey)?.revisionId ?? '';
  return (
    <>
      {Object.keys(answers).length > 0 ? (
        <ul className="chips" aria-label="Found so far">
          {Object.entries(answers).map(([ref, answer]) => (
            <li key={ref}>
              <Button
                variant="quiet"
                className="p-0"
                title="Take it back"
                onClick={() => onAnswers(Object.fromEntries(Object.entries(answers).filter(([other]) => other !== ref)))}
              >
                {shortName(features, ref)}: <b className="fig">{answer}</b> ×
              </Button>
            </li>
          ))}
        </ul>
      ) : null}
      {!sure && asked ? (
        <Ask
          key={asked.ref}
          feature={asked}
          picks={picksOf(candidates, asked.ref)}
          onAnswer={(answer) => onAnswers({ ...answers, [asked.ref]: answer })}
          onSkip={() => setSkipped([...skipped, asked.ref])}
        />
      ) : null}
      {!sure && !asked ? (
        <Alike candidates={ranked.filter(({ chance }) => chance > 0.05).map(({ id }) => named(id))} features={features} />
      ) : null}
      {noneFits ? (
        <NewModel
          family={family}
          why={`Nothing known here fits: ${best.against.map((ref) => shortName(features, ref)).join(', ')} speak against the nearest.`}
        />
      ) : null}
      <ol className="causes" aria-label="What it may be">
        {ranked.slice(0, 6).map(({ id, chance, against }) => {
          const candidate = named(id);
          return (
            <li key={id}>
              <div className="cause-line">
                <span>
                  {candidate.name}
                  {against.length > 0 ? (
                    <span className="v-out"> against: {against.map((ref) => shortName(features, ref)).join(', ')}</span>
                  ) : null}
                </span>
                <b className="fig">{percentWords(chance)}</b>
                <button
                  type="button"
                  className={`btn ${sure && id === best.id ? 'btn-primary' : 'btn-plain'}`}
                  onClick={() => onTake(candidate, revisionOf(candidate))}
                >
                  {sure && id === best.id ? 'It is this one' : 'Take it'}
                </button>
              </div>
              <div className="cause-rule" aria-hidden="true">
                <i style={{ width: `${chance * 100}%` }} />
              </div>
            </li>
          );
        })}
      </ol>
      {!sure && open.length > 1 ? (
        <p className="soft mb-0">
          Would tell next:{' '}
          {open
            .slice(0, 4)
            .map(({ feature, bits }) => `${shortName(features, feature)} (${bits.toFixed(1)} bit)`)
            .join(', ')}
          .
        </p>
      ) : null}
    </>
  );
}

/** A question in a word or two: "How many teeth has the ring gear?" goes by its ref. */
function shortName(features: readonly Feature[], ref: string): string {
  return (features.find((feature) => feature.ref === ref)?.ref ?? ref).replaceAll('-', ' ');
}

function foundOf(answers: Answers, features: readonly Feature[]): ReadonlyMap<string, Found> {
  const found = new Map<string, Found>();
  for (const [ref, answer] of Object.entries(answers)) {
    const feature = features.find((one) => one.ref === ref);
    if (!feature) continue;
    if (feature.quantity === undefined) {
      found.set(ref, { word: answer });
      continue;
    }
    const read = parseQuantity(answer, feature.quantity, ref);
    if (read.ok) found.set(ref, { figure: read.quantity.base, u: readingU(features, ref) });
  }
  return found;
}

interface AskProps {
  readonly feature: Feature;
  readonly picks: readonly string[];
  readonly onAnswer: (answer: string) => void;
  readonly onSkip: () => void;
}

function Ask({ feature, picks, onAnswer, onSkip }: AskProps): ReactElement {
  const [typed, setTyped] = useState('');
  const [problem, setProblem] = useState<string>();
  const take = (): void => {
    const quantity = feature.quantity as Quantity;
    const read = parseQuantity(typed, quantity, feature.ref);
    if (!read.ok)
      return setProblem(quantity === 'count' ? 'Give a whole number.' : `Give a figure, such as ${formatQuantity(25, quantity)}.`);
    onAnswer(formatQuantity(read.quantity.base, quantity, read.quantity.unit.symbol));
  };
  return (
    <div className="ask-box">
      <p className="fs-5 mb-1">
        <b>{feature.ask}</b>
      </p>
      {feature.how ? <p className="soft mb-2">{feature.how}</p> : null}
      <div className="keys mt-0">
        {feature.quantity === undefined ? (
          picks.map((pick) => (
            <Button key={pick} variant="plain" onClick={() => onAnswer(pick)}>
              {pick}
            </Button>
          ))
        ) : (
          <>
            <FormControl
              className={`ask-figure ${problem ? 'is-invalid' : ''}`}
              inputMode="decimal"
              autoComplete="off"
              aria-label={feature.ask}
              aria-invalid={problem !== undefined}
              value={typed}
              onChange={(event) => setTyped(event.target.value)}
              onKeyDown={(event) => {
                if (event.key !== 'Enter') return;
                event.preventDefault();
                take();
              }}
            />
            <Button variant="plain" onClick={take}>
              That is it
            </Button>
          </>
        )}
        <Button variant="quiet" onClick={onSkip}>
          Cannot tell
        </Button>
      </div>
      {problem ? <div className="v-out">{problem}</div> : null}
    </div>
  );
}

/** No question is left that tells anything: what differs at all, or that nothing does. */
function Alike({
  candidates,
  features,
}: {
  readonly candidates: readonly UnitCandidate[];
  readonly features: readonly Feature[];
}): ReactElement | null {
  const [a, b] = candidates;
  if (!a || !b) return null;
  const apart = tellsApart(a.candidate, b.candidate, (feature) => readingU(features, feature));
  return (
    <p>
      {apart.length > 0
        ? `What would tell ${a.name} from ${b.name}: ${apart.map((ref) => shortName(features, ref)).join(', ')}. Look again, or take the likelier.`
        : `Nothing on the sheets tells ${a.name} from ${b.name}. Take either; the difference shows when it is open.`}
    </p>
  );
}

function NewModel({ family, why }: { readonly family: string; readonly why: string }): ReactElement {
  return (
    <p>
      {why} <Link to={`/sheets/new?from=book-in&family=${encodeURIComponent(family)}`}>Begin a sheet from the family</Link>, and book it in
      by that.
    </p>
  );
}
