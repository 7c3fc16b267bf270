import { lineMinor, quoteTotal } from '@jubb/book';
import { dayWordsIn, type CustomerAnswer } from '@jubb/sheet';
import { ENDPOINTS, type AnswerBody, type OfferView } from '@jubb/wire';
import { useQuery } from '@tanstack/react-query';
import { useState, type ReactElement } from 'react';
import Button from 'react-bootstrap/Button';
import FormLabel from 'react-bootstrap/FormLabel';
import FormControl from 'react-bootstrap/FormControl';
import { addressOf, ask } from '../link/client.ts';
import { queryClient } from '../link/queries.ts';
import { LimitStrip, VerdictShape } from '../drawings/limit-strip.tsx';
import { moneyIn, percentText } from '../kit/money.ts';
import { Care, Loading, Wrong } from '../kit/pieces.tsx';
import { useSend } from '../kit/use-send.ts';
import { Tick } from '../kit/tick.tsx';
import './offer.scss';

/** What the customer sees behind the private link: what was found, the ways to go on, and three keys. */
export function OfferPage({ token }: { readonly token: string }): ReactElement {
  const key = ['offer', token];
  const { data: offer, error } = useQuery({ queryKey: key, queryFn: () => ask(ENDPOINTS.quotes.offer, { token }) });
  if (!offer)
    return (
      <main className="offer">
        {error ? (
          <>
            <h1>This link leads nowhere</h1>
            <Wrong error={error} />
            <p>Ask the shop to send it again.</p>
          </>
        ) : (
          <Loading what="the quote" />
        )}
      </main>
    );
  return <Offer offer={offer} token={token} onAnswered={(next) => queryClient.setQueryData(key, next)} />;
}

interface OfferProps {
  readonly offer: OfferView;
  readonly token: string;
  readonly onAnswered: (next: OfferView) => void;
}

function Offer({ offer, token, onAnswered }: OfferProps): ReactElement {
  const [chosen, setChosen] = useState(offer.answer?.option ?? 0);
  const [without, setWithout] = useState<readonly number[]>(offer.answer?.without ?? []);
  const [words, setWords] = useState('');
  const [asking, setAsking] = useState(false);
  const { busy, error, send } = useSend();
  const money = moneyIn(offer.currency);
  const { body } = offer;
  const option = body.options[chosen] ?? body.options[0]!;
  const total = quoteTotal(option, body.taxShare, without);
  const isOpen = offer.state === 'sent' || offer.state === 'ask';
  const answer = (what: CustomerAnswer): void => {
    const given: AnswerBody = {
      answer: what,
      without: what === 'yes' ? [...without] : [],
      ...(what === 'yes' ? { option: chosen } : {}),
      ...(words.trim() ? { words: words.trim() } : {}),
    };
    void send(async () => onAnswered(await ask(ENDPOINTS.quotes.answer, { token, body: given }))).then((ok) => {
      if (ok) setAsking(false);
    });
  };
  const declined = without.flatMap((place) => (option.lines[place]?.safety ? [option.lines[place].what] : []));
  return (
    <main className="offer">
      {offer.logo === null ? null : (
        <img className="offer-logo" src={addressOf(ENDPOINTS.quotes.picture, { token, sha: offer.logo })} alt="" height={56} />
      )}
      <p className="brand mb-0">{offer.shop}</p>
      <h1>
        Quote <span className="fig">{offer.number}</span>
      </h1>
      <p>
        {offer.unit} of {offer.machine}, for {offer.customer}. Good until {dayWordsIn('UTC', body.validUntil, true)}.
      </p>
      {body.words ? <p>{body.words}</p> : null}
      {offer.answer ? <Answered offer={offer} /> : null}
      {offer.state === 'replaced' ? (
        <Care title="Not good any more">A newer quote has taken its place. Ask the shop for its link.</Care>
      ) : null}
      {body.findings.length > 0 ? (
        <section>
          <h2>What we found</h2>
          {body.findings.map((finding) => (
            <div key={finding.words} className="found">
              <p className="mb-1">
                {finding.verdict === 'told' ? null : (
                  <b className={`fig v-${finding.verdict}`}>
                    <VerdictShape verdict={finding.verdict} /> {finding.verdict === 'unsure' ? 'not sure' : finding.verdict}
                  </b>
                )}{' '}
                {finding.words}
              </p>
              {finding.readings && finding.readings.length > 0 ? (
                <LimitStrip
                  name={finding.words}
                  readings={finding.readings}
                  from={finding.from}
                  to={finding.to}
                  unit={finding.unit ?? ''}
                />
              ) : null}
            </div>
          ))}
        </section>
      ) : null}
      {body.pictures && body.pictures.length > 0 ? (
        <section className="offer-pictures" aria-label="Pictures">
          {body.pictures.map(({ file, words, width, height }) => {
            const url = addressOf(ENDPOINTS.quotes.picture, { token, sha: file });
            return (
              <a key={file} href={url} target="_blank" rel="noreferrer">
                <img src={url} alt={words} width={width} height={height} loading="lazy" />
                <span>{words}</span>
              </a>
            );
          })}
        </section>
      ) : null}
      <section>
        <h2>{body.options.length > 1 ? 'Ways to go on' : 'What it takes'}</h2>
        {body.options.length > 1 ? (
          <div className="offer-ways" role="group" aria-label="Ways to go on">
            {body.options.map((one, place) => (
              <Button
                key={one.name}
                variant="plain"
                className={place === chosen ? 'on' : ''}
                aria-pressed={place === chosen}
                disabled={!isOpen}
                onClick={() => {
                  setChosen(place);
                  setWithout([]);
                }}
              >
                {one.name} <span className="fig fs-5">{money(quoteTotal(one, body.taxShare).gross)}</span>
              </Button>
            ))}
          </div>
        ) : null}
        {option.words ? <p>{option.words}</p> : null}
        <ul className="offer-lines">
          {option.lines.map((line, place) => (
            <li key={place}>
              <span>
                {line.optional ? (
                  <Tick
                    checked={!without.includes(place)}
                    disabled={!isOpen}
                    onChange={(event) => setWithout(event.target.checked ? without.filter((one) => one !== place) : [...without, place])}
                  >
                    {line.what}
                  </Tick>
                ) : (
                  line.what
                )}
                {line.quantity === 1 ? '' : `, ${line.quantity} ${line.sort === 'labour' ? 'h' : '×'}`}
              </span>
              <span className="fig">{money(lineMinor(line))}</span>
            </li>
          ))}
        </ul>
        <dl className="offer-sum">
          <dt>Net</dt>
          <dd className="fig">{money(total.net)}</dd>
          <dt>Tax {percentText(body.taxShare)} %</dt>
          <dd className="fig">{money(total.tax)}</dd>
          <dt>In all</dt>
          <dd className="fig fs-3">{money(total.gross)}</dd>
        </dl>
      </section>
      {declined.length > 0 ? (
        <Care>
          You leave out: {declined.join(', ')}. It can hurt somebody. If you say yes without it, it is written down that we told you.
        </Care>
      ) : null}
      <Wrong error={error} />
      {isOpen ? (
        <div className="offer-keys">
          {asking ? (
            <>
              <FormLabel htmlFor="offer-words">What would you like to know?</FormLabel>
              <FormControl
                id="offer-words"
                as="textarea"
                className="mb-2"
                rows={3}
                maxLength={1000}
                value={words}
                autoFocus
                onChange={(event) => setWords(event.target.value)}
              />
              <Button variant="primary" disabled={busy} onClick={() => answer('ask')}>
                Send the question
              </Button>
              <Button variant="plain" onClick={() => setAsking(false)}>
                Back
              </Button>
            </>
          ) : (
            <>
              <Button variant="primary" disabled={busy} onClick={() => answer('yes')}>
                Yes, do it for {money(total.gross)}
              </Button>
              <Button variant="plain" disabled={busy} onClick={() => setAsking(true)}>
                I have a question
              </Button>
              <Button variant="plain" disabled={busy} onClick={() => answer('no')}>
                No, leave it
              </Button>
            </>
          )}
        </div>
      ) : null}
    </main>
  );
}

function Answered({ offer }: { readonly offer: OfferView }): ReactElement | null {
  const { answer, body } = offer;
  if (!answer) return null;
  const words = {
    yes: `You said yes to "${body.options[answer.option ?? 0]?.name ?? ''}". We go on.`,
    no: 'You said no. We leave it as it is; the shop will call you.',
    ask: 'You asked. The shop will call you; you can still say yes or no here.',
  };
  return (
    <p className="work" role="status">
      <b>{words[answer.answer]}</b>
      {answer.words ? <span className="soft"> “{answer.words}”</span> : null}
    </p>
  );
}
