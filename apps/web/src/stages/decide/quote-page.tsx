import { labourHours, quoteTotal, risenSince, type Parts, type QuoteView } from '@jubb/book';
import { ENDPOINTS, type SentQuote } from '@jubb/wire';
import { useState, type ReactElement } from 'react';
import { v7 as uuid } from 'uuid';
import Button from 'react-bootstrap/Button';
import FormLabel from 'react-bootstrap/FormLabel';
import FormControl from 'react-bootstrap/FormControl';
import { Refusal, ask } from '../../link/client.ts';
import { jobKey, refresh, useSession } from '../../link/queries.ts';
import { Picture } from '../../capture/picture.tsx';
import { useHere } from '../../job/use-job.ts';
import { percentText, useMoney } from '../../kit/money.ts';
import { Loading, Title, Wrong } from '../../kit/pieces.tsx';
import { useDraft } from '../../kit/prefs.ts';
import { QUOTE_CLASS, QUOTE_WORDS } from '../../kit/quote-words.ts';
import { useSend } from '../../kit/use-send.ts';
import { dayWords, inDays } from '../../kit/days.ts';
import { JobFrame } from '../../job/job-frame.tsx';
import { OptionLines } from './option-lines.tsx';
import { RisenPrices } from './risen-prices.tsx';
import {
  askedAgain,
  bodyOf,
  findingsOf,
  picturesOf,
  plannedOption,
  shareOf,
  totalOf,
  type TypedOption,
  type TypedQuote,
} from './quote-draft.ts';
import { useParts } from '../../job/use-parts.ts';
import { useQuotes } from './use-quotes.ts';
import { Tick } from '../../kit/tick.tsx';

const GOOD_FOR_DAYS = 14;
/** More are shown when somebody picks them. */
const FIRST_PICTURES = 4;

export function QuotePage(): ReactElement {
  return (
    <JobFrame>
      <Quote />
    </JobFrame>
  );
}

function Quote(): ReactElement {
  const { job } = useHere();
  const { parts, error } = useParts();
  const { data: quotes } = useQuotes(job.id);
  const { data: session } = useSession();
  const [again, setAgain] = useState<TypedQuote | 'anew'>();
  const [link, setLink] = useState<string | null>(null);
  const [validUntil] = useState(() => inDays(GOOD_FOR_DAYS));
  if (!parts || !quotes) return error ? <Wrong error={error} /> : <Loading what="the quotes" />;
  const last = quotes[0];
  const isOut = last !== undefined && !again;
  const risen = last && session ? risenSince(last, parts, session.shop.marginShare) : [];
  return (
    <>
      <Title sub="What was found, what it takes, and what it costs: sent as a private link on which the customer says yes, no, or asks.">
        Quote
      </Title>
      {link === null ? null : <PrivateLink link={link} />}
      {quotes.map((quote) => (
        <Sent key={quote.id} quote={quote} onLink={setLink} />
      ))}
      {isOut && risen.length > 0 ? (
        <RisenPrices risen={risen}>
          <Button variant="primary" onClick={() => setAgain(askedAgain(last, risen, validUntil))}>
            Ask again at these prices
          </Button>
        </RisenPrices>
      ) : null}
      {isOut ? (
        <Button variant="plain" onClick={() => setAgain('anew')}>
          Write another one: it takes the place of this
        </Button>
      ) : (
        <QuoteForm
          key={quotes.length}
          parts={parts}
          validUntil={validUntil}
          begun={again === 'anew' ? undefined : again}
          onSent={(sent) => {
            setAgain(undefined);
            setLink(sent.link);
          }}
        />
      )}
    </>
  );
}

/** The customer's own link, shown to whoever sent it, once: the shop keeps nothing by which it could be found again. */
function PrivateLink({ link }: { readonly link: string }): ReactElement {
  const whole = `${location.origin}${link}`;
  const [copied, setCopied] = useState(false);
  const copy = async (): Promise<void> => {
    await navigator.clipboard.writeText(whole);
    setCopied(true);
  };
  return (
    <section className="work mb-3" aria-label="The customer’s link">
      <h2>The customer’s link</h2>
      <p className="mb-1">
        <a className="fig private-link" href={link}>
          {whole}
        </a>
      </p>
      <p className="soft mb-2">It is shown this once and kept nowhere. Whoever has it reads the quote and answers it.</p>
      {'clipboard' in navigator ? (
        <Button variant="plain" onClick={() => void copy()}>
          {copied ? 'Copied' : 'Copy it'}
        </Button>
      ) : null}
    </section>
  );
}

interface SentProps {
  readonly quote: QuoteView;
  readonly onLink: (link: string | null) => void;
}

function Sent({ quote: { id, jobId, number, state, body, sentAt, sentBy, answer }, onLink }: SentProps): ReactElement {
  const { busy, error, send } = useSend();
  const [isTakenBack, setTakenBack] = useState(false);
  const newLink = async (): Promise<void> => {
    const ok = await send(async () => onLink((await ask(ENDPOINTS.quotes.newLink, { id: jobId, quote: id })).link));
    if (ok) setTakenBack(false);
  };
  const takeBack = async (): Promise<void> => {
    if (await send(() => ask(ENDPOINTS.quotes.takeLinkBack, { id: jobId, quote: id }))) {
      onLink(null);
      setTakenBack(true);
    }
  };
  const money = useMoney();
  const option = answer?.option === undefined ? undefined : body.options[answer.option];
  return (
    <section className="work mb-3" aria-label={`Quote ${number}`}>
      <h2>
        Quote <span className="fig">{number}</span> <span className={QUOTE_CLASS[state]}>{QUOTE_WORDS[state]}</span>{' '}
        <span className="soft">
          to {body.to}, {dayWords(sentAt)}, by {sentBy}
        </span>
      </h2>
      <p className="mb-1">
        {body.options.map((one) => `${one.name} ${money(quoteTotal(one, body.taxShare).gross)}`).join(' · ')}, good until{' '}
        {dayWords(body.validUntil)}
      </p>
      {answer && option ? (
        <p className="mb-1">
          Taken: <b>{option.name}</b>, {money(quoteTotal(option, body.taxShare, answer.without).gross)}
          {answer.without.length > 0 ? `, without ${answer.without.map((place) => option.lines[place]?.what).join(', ')}` : ''}
        </p>
      ) : null}
      {answer?.words ? <p className="mb-1">“{answer.words}”</p> : null}
      {state === 'replaced' ? null : (
        <Button variant="quiet" disabled={busy} onClick={() => void newLink()}>
          New link; the one before ends
        </Button>
      )}
      {state === 'replaced' ? null : (
        <Button variant="quiet" disabled={busy} onClick={() => void takeBack()}>
          Take the link back
        </Button>
      )}
      {isTakenBack ? (
        <p className="mb-0" role="status">
          The link opens nothing any more. The quote stays, and is with the customer again with a new link.
        </p>
      ) : null}
      <Wrong error={error} />
    </section>
  );
}

interface QuoteFormProps {
  readonly parts: Parts;
  readonly validUntil: string;
  /** What it begins with, where that is not the plan of the job. */
  readonly begun: TypedQuote | undefined;
  readonly onSent: (sent: SentQuote) => void;
}

function QuoteForm({ parts, validUntil, begun, onSent }: QuoteFormProps): ReactElement {
  const { job, state } = useHere();
  const { data: session } = useSession();
  const money = useMoney();
  const [id, setId] = useState(() => uuid());
  const shop = session?.shop;
  const [typed, setTyped] = useDraft<TypedQuote>(
    `quote.${job.id}${begun ? '.again' : ''}`,
    begun ?? {
      to: job.customer.phone ?? '',
      words: '',
      validUntil,
      tax: percentText(shop?.taxShare ?? 0),
      findings: findingsOf(state).map((finding) => ({ ...finding, shown: true })),
      pictures: picturesOf(state).map((picture, place) => ({ ...picture, shown: place < FIRST_PICTURES })),
      options: [plannedOption(parts, state, labourHours(state.sheet, job.scope), shop ?? { hourlyMinor: 0, marginShare: 0 })],
    },
  );
  const [at, setAt] = useState(0);
  const [tried, setTried] = useState(false);
  const { busy, error, send } = useSend();
  const set = (change: Partial<TypedQuote>): void => {
    setTyped({ ...typed, ...change });
    setId(uuid());
  };
  const option = typed.options[at] ?? typed.options[0]!;
  const place = typed.options.indexOf(option);
  const setOption = (change: Partial<TypedOption>): void =>
    set({ options: typed.options.map((one, index) => (index === place ? { ...one, ...change } : one)) });
  const body = bodyOf(id, typed);
  const problems = error instanceof Refusal ? error.fields : [];
  const put = async (): Promise<void> => {
    setTried(true);
    if (!body) return;
    let sent: SentQuote | undefined;
    await send(async () => {
      sent = await ask(ENDPOINTS.quotes.send, { id: job.id, body });
    });
    if (!sent) return;
    setTyped(undefined);
    await refresh({ queryKey: jobKey(job.id) });
    await refresh({ queryKey: ['stores', 'messages'] });
    onSent(sent);
  };
  return (
    <form
      noValidate
      onSubmit={(event) => {
        event.preventDefault();
        void put();
      }}
    >
      <div className="two form-first">
        <div className="work">
          <div className="row">
            <Line
              id="quote-to"
              label="Goes to"
              text={typed.to}
              onText={(to) => set({ to })}
              wrong={tried && typed.to.trim() === '' ? 'Where does it go?' : wordsFor(problems, 'to')}
            />
            <Line
              id="quote-until"
              label="Good until"
              type="date"
              text={typed.validUntil}
              onText={(validUntil) => set({ validUntil })}
              wrong={wordsFor(problems, 'validUntil')}
            />
            <Line
              id="quote-tax"
              label="Tax, %"
              text={typed.tax}
              onText={(tax) => set({ tax })}
              wrong={shareOf(typed.tax) === undefined ? 'A share from 0 to 100 %' : wordsFor(problems, 'taxShare')}
            />
            <Line id="quote-words" label="A word to it" text={typed.words} onText={(words) => set({ words })} />
          </div>
          <h2 className="mt-2">What was found</h2>
          {typed.findings.length === 0 ? <p className="soft">Nothing was measured or looked at that is out or unsure.</p> : null}
          {typed.findings.map((finding, index) => (
            <Tick
              key={finding.words}
              className="mb-1"
              checked={finding.shown}
              onChange={(event) =>
                set({ findings: typed.findings.map((one, other) => (other === index ? { ...one, shown: event.target.checked } : one)) })
              }
            >
              <span>
                <b className={`fig v-${finding.verdict}`}>{finding.verdict === 'told' ? '' : finding.verdict}</b> {finding.words}
              </span>
            </Tick>
          ))}
          {typed.pictures.length > 0 ? <h2 className="mt-2">Pictures to show</h2> : null}
          <div className="pictures">
            {typed.pictures.map((picture, index) => (
              <div key={picture.file + String(index)}>
                <Picture file={picture.file} words={picture.words} width={picture.width} height={picture.height} />
                <Tick
                  checked={picture.shown}
                  onChange={(event) =>
                    set({
                      pictures: typed.pictures.map((one, other) => (other === index ? { ...one, shown: event.target.checked } : one)),
                    })
                  }
                >
                  <span>{picture.words}</span>
                </Tick>
              </div>
            ))}
          </div>
        </div>
        <div>
          <div className="d-flex flex-wrap gap-2 mb-2" role="group" aria-label="Ways to go on">
            {typed.options.map((one, index) => (
              <Button
                key={index}
                variant="plain"
                className={one === option ? 'on' : ''}
                aria-pressed={one === option}
                onClick={() => setAt(index)}
              >
                {one.name || 'no name'} <span className="fig">{money(totalOf(one, typed.tax))}</span>
              </Button>
            ))}
            {typed.options.length < 3 ? (
              <Button
                variant="quiet"
                onClick={() => {
                  set({
                    options: [
                      ...typed.options,
                      { ...option, name: ['Only what must', 'Better', 'Best'][typed.options.length] ?? 'Another' },
                    ],
                  });
                  setAt(typed.options.length);
                }}
              >
                One more way
              </Button>
            ) : null}
            {typed.options.length > 1 ? (
              <Button
                variant="quiet"
                onClick={() => {
                  set({ options: typed.options.filter((one) => one !== option) });
                  setAt(0);
                }}
              >
                Take this way out
              </Button>
            ) : null}
          </div>
          <Line
            id="option-name"
            label="This way is called"
            text={option.name}
            onText={(name) => setOption({ name })}
            wrong={option.name.trim() === '' ? 'It needs a name' : undefined}
          />
          <OptionLines option={option} onLines={(lines) => setOption({ lines })} />
        </div>
      </div>
      <Wrong error={error} hide={['to', 'validUntil', 'taxShare']} />
      {tried && !body ? <p className="v-out">Something in it is missing or is no amount: see the fields.</p> : null}
      <Button type="submit" variant="primary" className="mt-2" disabled={busy}>
        Send the quote
      </Button>
    </form>
  );
}

interface LineProps {
  readonly id: string;
  readonly label: string;
  readonly text: string;
  readonly type?: 'text' | 'date';
  readonly wrong?: string | undefined;
  readonly onText: (text: string) => void;
}

function Line({ id, label, text, type = 'text', wrong, onText }: LineProps): ReactElement {
  return (
    <div className="col-6 mb-2">
      <FormLabel htmlFor={id}>{label}</FormLabel>
      <FormControl
        id={id}
        type={type}
        className={wrong ? 'is-invalid' : ''}
        maxLength={500}
        value={text}
        aria-invalid={wrong !== undefined}
        onChange={(event) => onText(event.target.value)}
      />
      {wrong ? <div className="v-out">{wrong}</div> : null}
    </div>
  );
}

function wordsFor(problems: readonly { readonly field: string; readonly allowed: string }[], field: string): string | undefined {
  return problems.find((problem) => problem.field === field)?.allowed;
}
