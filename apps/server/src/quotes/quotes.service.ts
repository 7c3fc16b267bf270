import { isKind, quoteTotal, type NewEntry, type PersonView, type QuoteAnswer, type QuoteBody, type QuoteView } from '@jubb/book';
import type { AnswerBody, AnswerDue, CustomerQuote, MessageView, OfferView, SentQuote } from '@jubb/wire';
import { randomBytes } from 'node:crypto';
import { Inject, Injectable } from '@nestjs/common';
import { DataSource, In, IsNull, Not, type EntityManager, type FindOptionsWhere } from 'typeorm';
import { v7 as uuid } from 'uuid';
import { shopDay } from '../common/shop-day.js';
import { ProblemError, badInput, notFound } from '../common/problem.js';
import { inTransaction } from '../database/data-source.js';
import { Job, Message, Quote, Shop, type KeptFile } from '../database/entities/index.js';
import { EntriesService } from '../entries/entries.service.js';
import { FilesService } from '../files/files.service.js';
import { digest } from '../tablets/tablets.service.js';

/** No newer one has taken its place. */
const GOOD: FindOptionsWhere<Quote> = { state: Not('replaced') };

/** Whom a quote went to who is made nameless. */
const NOBODY = 'nobody';

/** So many of the newest are shown. */
const MOST_OF_CUSTOMER = 200;
const MOST_MESSAGES = 100;
const MOST_OPEN = 40;

/** All that an offer tells of its job. */
const WITH_JOB = { job: { unit: { machine: { customer: true } } }, sentBy: true } as const;

@Injectable()
export class QuotesService {
  constructor(
    @Inject(DataSource) private readonly dataSource: DataSource,
    @Inject(EntriesService) private readonly entries: EntriesService,
    @Inject(FilesService) private readonly files: FilesService,
  ) {}

  async ofJob(jobId: string): Promise<readonly QuoteView[]> {
    const quotes = await this.dataSource.manager.find(Quote, {
      where: { jobId },
      relations: { sentBy: true },
      order: { number: 'DESC' },
    });
    return quotes.map(viewOf);
  }

  /** What a customer was offered on all their units, the newest first. */
  async ofCustomer(customerId: string): Promise<readonly CustomerQuote[]> {
    const quotes = await this.dataSource.manager.find(Quote, {
      where: { job: { unit: { machine: { customerId } } } },
      relations: { sentBy: true, job: true },
      order: { sentAt: 'DESC', number: 'DESC' },
      take: MOST_OF_CUSTOMER,
    });
    return quotes.map((quote) => ({ ...viewOf(quote), jobNumber: quote.job.number }));
  }

  /** Where a customer's quotes went, and what was written to them and by them, is taken away; what was offered, and its yes or no, stays. */
  async makeNameless(manager: EntityManager, customerId: string): Promise<void> {
    const quotes = await manager.find(Quote, { where: { job: { unit: { machine: { customerId } } } } });
    for (const { id, number, body, answer } of quotes) {
      const { words: _letter, ...offered } = body;
      const said = answer && (({ words: _words, ...rest }) => rest)(answer);
      // A link that is still somewhere opens nothing any more.
      await manager.update(Quote, id, { body: { ...offered, to: NOBODY }, answer: said, tokenHash: digest(newToken()) });
      await manager.update(Message, { subject: subjectOf(number) }, { to: NOBODY, text: '' });
    }
  }

  /** Quotes of open jobs that wait for a yes or a no, the longest out first. */
  async open(): Promise<readonly AnswerDue[]> {
    const quotes = await this.dataSource.manager.find(Quote, {
      where: { state: In(['sent', 'ask']), job: { closedAt: IsNull() } },
      relations: WITH_JOB,
      order: { sentAt: 'ASC' },
      take: MOST_OPEN,
    });
    return quotes.map(({ id, number, jobId, job, sentAt, body, answer }) => ({
      quoteId: id,
      number,
      jobId,
      jobNumber: job.number,
      unit: job.unit.name,
      customer: job.unit.machine.customer.name,
      phone: job.unit.machine.customer.phone,
      sentAt: sentAt.toISOString(),
      validUntil: body.validUntil,
      asked: answer?.words ?? null,
    }));
  }

  async messages(): Promise<readonly MessageView[]> {
    const messages = await this.dataSource.manager.find(Message, { order: { sentAt: 'DESC' }, take: MOST_MESSAGES });
    return messages.map(({ sentAt, ...message }) => ({ ...message, sentAt: sentAt.toISOString() }));
  }

  /**
   * Sends a quote with its private link, which is shown this once and kept as its hash; an earlier one of the job is
   * good no more, even when it had a yes. The job waits for the answer. All of it, or nothing.
   */
  async send(jobId: string, { id, ...body }: QuoteBody, person: PersonView): Promise<SentQuote> {
    if (await this.dataSource.manager.existsBy(Quote, { id })) return { quotes: await this.ofJob(jobId), link: null };
    if (body.validUntil < (await shopDay(this.dataSource)).today)
      throw badInput([{ field: 'validUntil', given: body.validUntil, allowed: 'must not be over already' }]);
    await this.#checkPictures(jobId, body);
    const token = newToken();
    const tell = await inTransaction(this.dataSource, async (manager) => {
      // Two that are sent at once come one after the other: one of them is good.
      const job = await manager.findOne(Job, { where: { id: jobId }, lock: { mode: 'for_no_key_update' } });
      if (!job) throw notFound('job');
      await manager.update(Quote, { jobId, ...GOOD }, { state: 'replaced' });
      await manager.insert(Quote, { id, jobId, body, tokenHash: digest(token), sentById: person.id });
      const { number } = await manager.findOneByOrFail(Quote, { id });
      await manager.insert(Message, {
        to: body.to,
        subject: subjectOf(number),
        text: body.words?.trim() || 'Please look at what we found, and say yes, no, or ask.',
      });
      return job.hold === null ? this.#post(manager, jobId, person, hold(`Quote ${number} is with the customer`)) : undefined;
    });
    tell?.();
    return { quotes: await this.ofJob(jobId), link: linkOf(token) };
  }

  /** A new link for a quote that is out; the one before opens nothing any more. */
  async newLink(jobId: string, quoteId: string): Promise<SentQuote> {
    const token = newToken();
    const { affected } = await this.dataSource.manager.update(Quote, { id: quoteId, jobId, ...GOOD }, { tokenHash: digest(token) });
    if (!affected) throw notFound('quote that is good');
    return { quotes: await this.ofJob(jobId), link: linkOf(token) };
  }

  /** Takes the link of a quote back: it opens nothing any more, and the quote waits for a new one. */
  async takeLinkBack(jobId: string, quoteId: string): Promise<readonly QuoteView[]> {
    const { affected } = await this.dataSource.manager.update(Quote, { id: quoteId, jobId }, { tokenHash: digest(newToken()) });
    if (!affected) throw notFound('quote');
    return this.ofJob(jobId);
  }

  async offer(token: string): Promise<OfferView> {
    const [{ number, state, body, answer, job }, { name, currency, logo }] = await Promise.all([
      this.#byToken(this.dataSource.manager, token),
      this.dataSource.manager.findOneByOrFail(Shop, { id: 1 }),
    ]);
    const { to: _private, ...shown } = body;
    const { unit } = job;
    const { machine } = unit;
    return {
      number,
      shop: name,
      logo,
      currency,
      unit: unit.name,
      machine: machine.name,
      customer: machine.customer.name,
      state,
      body: shown,
      answer,
    };
  }

  /** The customer's word, once: the same again is taken, another one is not, but for a question that was asked before. */
  async answer(token: string, given: AnswerBody): Promise<OfferView> {
    const { today } = await shopDay(this.dataSource);
    const tell = await inTransaction(this.dataSource, async (manager) => {
      await manager.findOne(Quote, { where: { tokenHash: digest(token) }, lock: { mode: 'pessimistic_write' } });
      const quote = await this.#byToken(manager, token);
      const { answer: before, body } = quote;
      if (before && before.answer !== 'ask') {
        if (isSame(before, given)) return undefined;
        throw new ProblemError('quote-answered', {
          detail: `The answer was: ${before.answer}. Telephone the shop to change it`,
        });
      }
      if (body.validUntil < today) throw new ProblemError('quote-over', { detail: `It was good until ${body.validUntil}` });
      checkAnswer(given, body);
      const answer: QuoteAnswer = { ...given, at: new Date().toISOString() };
      await manager.update(Quote, quote.id, { state: given.answer, answer });
      return this.#record(manager, quote, given);
    });
    tell?.();
    return this.offer(token);
  }

  /** What the answer makes of the job: it goes on or waits, what was left out is owed or recorded as told. */
  async #record(manager: EntityManager, quote: Quote, given: AnswerBody): Promise<() => void> {
    const option = given.option === undefined ? undefined : quote.body.options[given.option];
    const left = given.answer === 'yes' && option ? given.without.map((place) => option.lines[place]!) : [];
    const total = option && given.answer === 'yes' ? quoteTotal(option, quote.body.taxShare, given.without) : undefined;
    const words = given.words?.trim();
    const job = await manager.findOneByOrFail(Job, { id: quote.jobId });
    return this.#post(
      manager,
      quote.jobId,
      quote.sentBy,
      {
        kind: 'answered',
        payload: {
          quote: quote.number,
          answer: given.answer,
          ...(option ? { option: option.name } : {}),
          ...(words ? { words } : {}),
          ...(total ? { grossMinor: total.gross } : {}),
        },
      },
      ...left.map((line): Draft =>
        line.safety
          ? { kind: 'finding', payload: { text: `Told the customer, and declined: ${line.what}. It can hurt somebody` } }
          : { kind: 'owed', payload: { what: line.what, told: words ?? `left out of quote ${quote.number}` } },
      ),
      ...(job.hold?.reason === 'answer'
        ? [
            given.answer === 'yes'
              ? ({ kind: 'hold-off', payload: { words: 'The customer says yes' } } as const)
              : hold(`Quote ${quote.number}: ${given.answer === 'no' ? 'the customer says no' : 'the customer asks'}`),
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
  async picture(token: string, sha: string): Promise<Pick<KeptFile, 'type' | 'content'> | undefined> {
    const { body } = await this.#byToken(this.dataSource.manager, token);
    const { logo } = await this.dataSource.manager.findOneByOrFail(Shop, { id: 1 });
    if (sha !== logo && !body.pictures?.some(({ file }) => file === sha)) return undefined;
    return this.files.read(sha);
  }

  async #byToken(manager: EntityManager, token: string): Promise<Quote> {
    const quote = await manager.findOne(Quote, { where: { tokenHash: digest(token) }, relations: WITH_JOB });
    if (!quote) throw notFound('quote');
    if (quote.state === 'replaced') throw REPLACED();
    return quote;
  }

  #post(manager: EntityManager, jobId: string, person: PersonView, ...drafts: readonly Draft[]): Promise<() => void> {
    const takenAt = new Date().toISOString();
    return this.entries.postWithin(
      manager,
      jobId,
      person,
      drafts.map((draft) => ({ ...draft, id: uuid(), takenAt })),
    );
  }
}

/** A link ends when a newer quote takes the place of its own. */
const REPLACED = (): ProblemError => new ProblemError('quote-replaced');

/** Of the letter that a quote goes out with. */
function subjectOf(number: number): string {
  return `Quote ${number}`;
}

function viewOf({ id, number, jobId, state, body, sentAt, sentBy, answer }: Quote): QuoteView {
  return { id, number, jobId, state, body, sentAt: sentAt.toISOString(), sentBy: sentBy.name, answer };
}

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

function checkAnswer({ answer, option: place, without, words }: AnswerBody, { options }: Pick<QuoteBody, 'options'>): void {
  if (answer === 'ask' && !words?.trim()) throw badInput([{ field: 'words', allowed: 'is missing: what would you like to know?' }]);
  if (answer !== 'yes') return;
  const option = place === undefined ? undefined : options[place];
  if (!option) throw badInput([{ field: 'option', given: String(place ?? ''), allowed: `must be one of the ${options.length} options` }]);
  const fixed = without.find((line) => option.lines[line]?.optional !== true);
  if (fixed !== undefined)
    throw badInput([{ field: 'without', given: option.lines[fixed]?.what ?? String(fixed), allowed: 'cannot be left out' }]);
}
