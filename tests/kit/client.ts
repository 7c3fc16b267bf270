import type { JobHead, JobView, NewEntry } from '@jubb/book';
import type { Problem, SessionView, SheetLine } from '@jubb/wire';
import { v7 as uuid } from 'uuid';
import { workUntil } from '../../tools/demo-work.mjs';

export interface Answer<T> {
  readonly status: number;
  readonly body: T;
  readonly headers: Headers;
}

/** What a shop of one's own is opened with. */
export const OWN_SHOP = {
  shop: 'Own bench',
  zone: 'Europe/Vienna',
  currency: 'EUR',
  name: 'Somebody Else',
  login: 'else',
  password: 'long enough',
};

/** One person at the API. */
export class Client {
  /** By name, as a browser keeps them. */
  readonly #cookies = new Map<string, string>();
  #csrf = 'none';
  readonly #base: string;

  constructor(base: string) {
    this.#base = base;
  }

  static async as(base: string, login: string, password = 'bench-417'): Promise<Client> {
    const client = new Client(base);
    const answer = await client.call<SessionView>('POST', '/session', { login, password });
    if (answer.status !== 200) throw new Error(`log-in failed: ${JSON.stringify(answer.body)}`);
    return client;
  }

  async call<T = Problem>(method: string, path: string, body?: unknown, headers: Record<string, string> = {}): Promise<Answer<T>> {
    const response = await fetch(`${this.#base}/api/v1${path}`, {
      method,
      headers: {
        cookie: this.cookie,
        ...(body === undefined ? {} : { 'content-type': 'application/json' }),
        ...(method === 'GET' ? {} : { 'x-jubb-csrf': this.#csrf }),
        ...headers,
      },
      ...(body === undefined
        ? {}
        : { body: typeof body === 'string' ? body : Buffer.isBuffer(body) ? new Uint8Array(body) : JSON.stringify(body) }),
    });
    for (const cookie of response.headers.getSetCookie()) {
      const pair = cookie.split(';')[0] ?? '';
      this.#cookies.set(pair.split('=')[0] ?? '', pair);
    }
    const text = await response.text();
    const parsed = /json/u.test(response.headers.get('content-type') ?? '') ? (JSON.parse(text) as T) : (text as T);
    const csrf = (parsed as { csrf?: string } | undefined)?.csrf;
    if (csrf) this.#csrf = csrf;
    return { status: response.status, body: parsed, headers: response.headers };
  }

  async jobNumbered(number: number): Promise<JobView> {
    const jobs = await this.get<{ id: string; number: number }[]>(`/jobs?find=${number}`);
    return this.get<JobView>(`/jobs/${jobs.find((job) => job.number === number)?.id ?? ''}`);
  }

  /** The approved sheet of a key. */
  async sheetKeyed(key: string): Promise<SheetLine> {
    const found = (await this.get<SheetLine[]>('/sheets')).find((sheet) => sheet.key === key && sheet.status === 'approved');
    if (!found) throw new Error(`no approved sheet ${key}`);
    return found;
  }

  /** What a call that must not be refused answers. */
  async #told<T>(method: string, path: string, body?: unknown): Promise<T> {
    const answer = await this.call<T>(method, path, body);
    if (answer.status >= 400) throw new Error(`${method} ${path}: ${answer.status} ${JSON.stringify(answer.body)}`);
    return answer.body;
  }

  get<T>(path: string): Promise<T> {
    return this.#told<T>('GET', path);
  }

  made<T>(path: string, body: object): Promise<T> {
    return this.#told<T>('POST', path, body);
  }

  /** A job on a sheet, booked in. */
  booked(sheetRevisionId: string, rest: object = {}): Promise<JobHead> {
    return this.made<JobHead>('/jobs', booking(sheetRevisionId, rest));
  }

  /** A job on the approved sheet of that key. */
  async bookedOn(key: string, rest: object = {}): Promise<JobHead> {
    return this.booked((await this.sheetKeyed(key)).revisionId, rest);
  }

  /** Lets the demo mechanic work at a job until the step is the next. */
  async workTo(jobId: string, step: string): Promise<void> {
    const foreman = await Client.as(this.#base, 'oswin');
    const isThere = (act: { step?: { ref: string } }): boolean => act.step?.ref === step;
    return workUntil(this.#told.bind(this), jobId, isThere, foreman.#told.bind(foreman));
  }

  post<T = Problem>(jobId: string, ...entries: object[]): Promise<Answer<T>> {
    return this.call<T>('POST', `/jobs/${jobId}/entries`, { entries });
  }

  get cookie(): string {
    return [...this.#cookies.values()].join('; ');
  }
}

export function entry(kind: NewEntry['kind'], payload: object, rest: Partial<NewEntry> = {}): NewEntry {
  return { id: uuid(), kind, payload, takenAt: new Date().toISOString(), ...rest };
}

/** What books in a unit that was never here. */
export function booking(sheetRevisionId: string, rest: object = {}): object {
  return {
    id: uuid(),
    customer: { name: 'Gelmarn Lift and Piste' },
    machine: { name: 'Belt loader 2', serial: `BL-${uuid().slice(-6)}` },
    unit: { name: 'Alternator', serial: `A-${uuid().slice(-6)}` },
    sheetRevisionId,
    complaint: 'Does not charge.',
    promise: new Date(Date.now() + 1e8).toISOString(),
    estimateMinor: 20_400,
    ...rest,
  };
}
