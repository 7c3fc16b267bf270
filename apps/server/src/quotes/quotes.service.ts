import { isKind, quoteTotal, type NewEntry, type PersonView, type QuoteAnswer, type QuoteBody, type QuoteView } from '@jubb/book';
import type { AnswerBody, MessageView, OfferView, SentQuote } from '@jubb/wire';
import { randomBytes } from 'node:crypto';
import { Inject, Injectable } from '@nestjs/common';
import type { PoolClient } from 'pg';
import { DataSource } from 'typeorm';
import { v7 as uuid } from 'uuid';
import { shopDay } from '../common/shop-day.js';
import { ProblemError, badInput, notFound } from '../common/problem.js';
import { ask, inTransaction, poolOf, type Statement } from '../database/data-source.js';
import { EntriesService } from '../entries/entries.service.js';
import { FilesService, type KeptFile } from '../files/files.service.js';
import { digest } from '../tablets/tablets.service.js';

const OF_JOB: Statement = {
  name: 'quotes-of-job',
  text: `SELECT q.id, q.number, q.job_id AS "jobId", q.state, q.body, q.sent_at AS "sentAt", p.name AS "sentBy", q.answer
         FROM quote q JOIN person p ON p.id = q.sent_by WHERE q.job_id = $1 ORDER BY q.number DESC`,
};
const BY_TOKEN = `
  SELECT q.id, q.number, q.job_id AS "jobId", q.state, q.body, q.answer, q.body->>'validUntil' < to_char(now() AT TIME ZONE s.zone, 'YYYY-MM-DD') AS "isOver",
    s.name AS shop, s.currency, u.name AS unit, m.name AS machine, c.name AS customer,
    json_build_object('id', p.id, 'name', p.name, 'login', p.login, 'role', p.role) AS sender
  FROM quote q CROSS JOIN shop s JOIN job j ON j.id = q.job_id JOIN unit u ON u.id = j.unit_id JOIN machine m ON m.id = u.machine_id
    JOIN customer c ON c.id = m.customer_id JOIN person p ON p.id = q.sent_by
  WHERE q.token_hash = $1`;

type Offer = Omit<OfferView, 'body'> & {
  readonly id: string;
  readonly jobId: string;
  readonly body: QuoteBody;
  readonly isOver: boolean;
  readonly sender: PersonView;
};

@Injectable()
export class QuotesService {
  constructor(
    @Inject(DataSource) private readonly dataSource: DataSource,
    @Inject(EntriesService) private readonly entries: EntriesService,
    @Inject(FilesService) private readonly files: FilesService,
  ) {}

  ofJob(jobId: string): Promise<readonly QuoteView[]> {
    return ask(poolOf(this.dataSource), OF_JOB, jobId);
  }

  messages(): Promise<readonly MessageView[]> {
    return this.dataSource.query(
      'SELECT id, to_whom AS "to", subject, body AS text, sent_at AS "sentAt" FROM message ORDER BY sent_at DESC LIMIT 100',
    );
  }

  /**
   * Sends a quote with its private link, which is shown this once and kept as its hash; an earlier one of the job is
   * good no more, even when it had a yes. The job waits for the answer. All of it, or nothing.
   */
  async send(jobId: string, { id, ...body }: QuoteBody, person: PersonView): Promise<SentQuote> {
    const [known] = await this.dataSource.query<unknown[]>('SELECT 1 FROM quote WHERE id = $1', [id]);
    if (known) return { quotes: await this.ofJob(jobId), link: null };
    if (body.validUntil < (await shopDay(this.dataSource)).today)
      throw badInput([{ field: 'validUntil', given: body.validUntil, allowed: 'must not be over already' }]);
    await this.#checkPictures(jobId, body);
    const token = newToken();
    const tell = await inTransaction(poolOf(this.dataSource), async (client) => {
      // Two that are sent at once come one after the other: one of them is good.
      const { rows: jobs } = await client.query<{ hold: unknown }>('SELECT hold FROM job WHERE id = $1 FOR NO KEY UPDATE', [jobId]);
      if (!jobs[0]) throw notFound('job');
      await client.query("UPDATE quote SET state = 'replaced' WHERE job_id = $1 AND state <> 'replaced'", [jobId]);
      const { rows } = await client.query<{ number: number }>(
        'INSERT INTO quote (id, job_id, body, token_hash, sent_by) VALUES ($1, $2, $3, $4, $5) RETURNING number',
        [id, jobId, body, digest(token), person.id],
      );
      const { number } = rows[0]!;
      await client.query('INSERT INTO message (to_whom, subject, body) VALUES ($1, $2, $3)', [
        body.to,
        `Quote ${number}`,
        body.words?.trim() || 'Please look at what we found, and say yes, no, or ask.',
      ]);
      return jobs[0].hold === null ? this.#post(client, jobId, person, hold(`Quote ${number} is with the customer`)) : undefined;
    });
    tell?.();
    return { quotes: await this.ofJob(jobId), link: linkOf(token) };
  }

  /** A new link for a quote that is out; the one before opens nothing any more. */
  async newLink(jobId: string, quoteId: string): Promise<SentQuote> {
    const token = newToken();
    const rows = await this.dataSource.query<[unknown[], number]>(
      "UPDATE quote SET token_hash = $3 WHERE id = $2 AND job_id = $1 AND state <> 'replaced'",
      [jobId, quoteId, digest(token)],
    );
    if (rows[1] === 0) throw notFound('quote that is good');
    return { quotes: await this.ofJob(jobId), link: linkOf(token) };
  }

  /** Takes the link of a quote back: it opens nothing any more, and the quote waits for a new one. */
  async takeLinkBack(jobId: string, quoteId: string): Promise<readonly QuoteView[]> {
    const rows = await this.dataSource.query<[unknown[], number]>('UPDATE quote SET token_hash = $3 WHERE id = $2 AND job_id = $1', [
      jobId,
      quoteId,
      digest(newToken()),
    ]);
    if (rows[1] === 0) throw notFound('quote');
    return this.ofJob(jobId);
  }

  async offer(token: string): Promise<OfferView> {
    const { number, shop, currency, unit, machine, customer, state, body, answer } = await this.#byToken(token);
    const { to: _private, ...shown } = body;
    return { number, shop, currency, unit, machine, customer, state, body: shown, answer };
  }

  /** The customer's word, once: the same again is taken, another one is not, but for a question that was asked before. */
  async answer(token: string, given: AnswerBody): Promise<OfferView> {
    const { id } = await this.#byToken(token);
    const tell = await inTransaction(poolOf(this.dataSource), async (client) => {
      await client.query('SELECT 1 FROM quote WHERE id = $1 FOR UPDATE', [id]);
      const { rows } = await client.query<Offer>(BY_TOKEN, [digest(token)]);
      const offer = rows[0]!;
      if (offer.state === 'replaced') throw REPLACED();
      if (offer.answer && offer.answer.answer !== 'ask') {
        if (isSame(offer.answer, given)) return undefined;
        throw new ProblemError('quote-answered', {
          detail: `The answer was: ${offer.answer.answer}. Telephone the shop to change it`,
        });
      }
      if (offer.isOver) throw new ProblemError('quote-over', { detail: `It was good until ${offer.body.validUntil}` });
      checkAnswer(given, offer.body);
      const answer: QuoteAnswer = { ...given, at: new Date().toISOString() };
      await client.query('UPDATE quote SET state = $2, answer = $3 WHERE id = $1', [id, given.answer, answer]);
      return this.#record(client, offer, given);
    });
    tell?.();
    return this.offer(token);
  }

  /** What the answer makes of the job: it goes on or waits, what was left out is owed or recorded as told. */
  async #record(client: PoolClient, offer: Offer, given: AnswerBody): Promise<() => void> {
    const option = given.option === undefined ? undefined : offer.body.options[given.option];
    const left = given.answer === 'yes' && option ? given.without.map((place) => option.lines[place]!) : [];
    const total = option && given.answer === 'yes' ? quoteTotal(option, offer.body.taxShare, given.without) : undefined;
    const words = given.words?.trim();
    const { rows } = await client.query<{ reason: string | null }>("SELECT hold->>'reason' AS reason FROM job WHERE id = $1", [
      offer.jobId,
    ]);
    return this.#post(
      client,
      offer.jobId,
      offer.sender,
      {
        kind: 'answered',
        payload: {
          quote: offer.number,
          answer: given.answer,
          ...(option ? { option: option.name } : {}),
          ...(words ? { words } : {}),
          ...(total ? { grossMinor: total.gross } : {}),
        },
      },
      ...left.map((line): Draft =>
        line.safety
          ? { kind: 'finding', payload: { text: `Told the customer, and declined: ${line.what}. It can hurt somebody` } }
          : { kind: 'owed', payload: { what: line.what, told: words ?? `left out of quote ${offer.number}` } },
      ),
      ...(rows[0]?.reason === 'answer'
        ? [
            given.answer === 'yes'
              ? ({ kind: 'hold-off', payload: { words: 'The customer says yes' } } as const)
              : hold(`Quote ${offer.number}: ${given.answer === 'no' ? 'the customer says no' : 'the customer asks'}`),
          ]
        : []),
    );
  }

  /** Only what was photographed on this job may be shown to its customer. */
  async #checkPictures(jobId: string, { pictures = [] }: Pick<QuoteBody, 'pictures'>): Promise<void> {
    if (pictures.length === 0) return;
    const photos = (await this.entries.ofJob(jobId)).filter(isKind('photo'));
    const strange = pictures.findIndex(({ file }) => !photos.some(({ payload }) => payload.file === file));
    if (strange !== -1)
      throw badInput([{ field: `pictures[${strange}].file`, given: pictures[strange]!.file, allowed: 'must be a photo of this job' }]);
  }

  /** A picture that the quote shows, and no other; undefined when the link is right and the picture is not in it. */
  async picture(token: string, sha: string): Promise<KeptFile | undefined> {
    const { body } = await this.#byToken(token);
    if (!body.pictures?.some(({ file }) => file === sha)) return undefined;
    return this.files.read(sha);
  }

  async #byToken(token: string): Promise<Offer> {
    const [offer] = await this.dataSource.query<Offer[]>(BY_TOKEN, [digest(token)]);
    if (!offer) throw notFound('quote');
    if (offer.state === 'replaced') throw REPLACED();
    return offer;
  }

  #post(client: PoolClient, jobId: string, person: PersonView, ...drafts: readonly Draft[]): Promise<() => void> {
    const takenAt = new Date().toISOString();
    return this.entries.postWithin(
      client,
      jobId,
      person,
      drafts.map((draft) => ({ ...draft, id: uuid(), takenAt })),
    );
  }
}

/** A link ends when a newer quote takes the place of its own. */
const REPLACED = (): ProblemError => new ProblemError('quote-replaced');

function newToken(): string {
  return randomBytes(24).toString('base64url');
}

function linkOf(token: string): string {
  return `/q/${token}`;
}

type Draft = Pick<NewEntry, 'kind' | 'payload'>;

function hold(words: string): Draft {
  return { kind: 'hold', payload: { reason: 'answer', words } };
}

function isSame(before: QuoteAnswer, now: AnswerBody): boolean {
  return before.answer === now.answer && before.option === now.option && before.without.join() === now.without.join();
}

function checkAnswer({ answer, option: place, without, words }: AnswerBody, { options }: QuoteBody): void {
  if (answer === 'ask' && !words?.trim()) throw badInput([{ field: 'words', allowed: 'is missing: what would you like to know?' }]);
  if (answer !== 'yes') return;
  const option = place === undefined ? undefined : options[place];
  if (!option) throw badInput([{ field: 'option', given: String(place ?? ''), allowed: `must be one of the ${options.length} options` }]);
  const fixed = without.find((line) => option.lines[line]?.optional !== true);
  if (fixed !== undefined)
    throw badInput([{ field: 'without', given: option.lines[fixed]?.what ?? String(fixed), allowed: 'cannot be left out' }]);
}
