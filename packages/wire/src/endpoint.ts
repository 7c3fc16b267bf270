import type { Role } from '@jubb/sheet';
import type { Answers } from './answers.js';
import type { Bodies } from './taken.js';

export type Method = 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE';

/** Who may ask: some roles, or anyone, logged in or not. */
export type Who = readonly Role[] | 'anyone';

/** What comes back: one of the answers, a list of them, nothing, or a file of some sort. */
export type Answering = keyof Answers | readonly [keyof Answers] | 'nothing' | { readonly media: string };

type AnswerTo<A extends Answering> = A extends keyof Answers
  ? Answers[A]
  : A extends readonly [infer N extends keyof Answers]
    ? Answers[N][]
    : A extends 'nothing'
      ? undefined
      : unknown;

/** One operation of the server: the one place that says how it is asked, by whom, and what it answers. */
export interface Endpoint<
  P extends string = string,
  A extends Answering = Answering,
  B extends keyof Bodies = keyof Bodies,
  Q extends string = string,
> {
  readonly method: Method;
  /** Below `/api/v1`; a part that begins with a colon is filled in. */
  readonly path: P;
  readonly who: Who;
  readonly answers: A;
  readonly status: number;
  /** The class that what is sent is checked by. */
  readonly body: B | undefined;
  readonly query: readonly Q[];
}

interface More<B extends keyof Bodies, Q extends string> {
  readonly body?: B;
  readonly query?: readonly Q[];
  readonly status?: number;
}

export function endpoint<P extends string, const A extends Answering, B extends keyof Bodies = never, Q extends string = never>(
  method: Method,
  path: P,
  who: Who,
  answers: A,
  { body, query = [], status = answers === 'nothing' ? 204 : 200 }: More<B, Q> = {},
): Endpoint<P, A, B, Q> {
  return { method, path, who, answers, status, body, query };
}

/** Names of the parts of a path that are filled in. */
type PartsOf<P extends string> = P extends `${string}:${infer Name}/${infer Rest}`
  ? Name | PartsOf<Rest>
  : P extends `${string}:${infer Name}`
    ? Suffixless<Name>
    : never;
type Suffixless<N extends string> = N extends `${infer Name}.${string}` ? Name : N;

type Text = string | number | boolean | undefined;

/** What an endpoint is asked with: the parts of its path and its query by their names. */
export type AskedWith<E> =
  E extends Endpoint<infer P, Answering, infer B, infer Q>
    ? Readonly<Record<PartsOf<P>, string>> &
        Readonly<Partial<Record<Q, Text>>> &
        ([B] extends [never] ? unknown : { readonly body: Plain<Bodies[B]> })
    : never;

/** A body as a page makes it: a plain object with the fields of the class; what may be left out may be undefined, too. */
type Plain<T> = T extends readonly (infer I)[]
  ? readonly Plain<I>[]
  : T extends object
    ? { readonly [F in keyof T as Optional<T, F>]?: Plain<T[F]> | undefined } & {
        readonly [F in Exclude<keyof T, Optional<T, keyof T>>]: Plain<T[F]>;
      }
    : T;
type Optional<T, F extends keyof T> = F extends keyof T ? (Record<never, never> extends Pick<T, F> ? F : never) : never;

export type AnswerOf<E> =
  E extends Endpoint<string, infer A, never> ? AnswerTo<A> : E extends Endpoint<string, infer A> ? AnswerTo<A> : never;

/** The address of an endpoint with its parts filled in, below `/api/v1`. */
export function pathOf<E extends Pick<Endpoint, 'path' | 'query'>>({ path, query }: E, given: Readonly<Record<string, unknown>>): string {
  const filled = path.replace(/:(\w+)/gu, (_, name: string) => encodeURIComponent(String(given[name])));
  const asked = query.filter((name) => given[name] !== undefined).map((name) => `${name}=${encodeURIComponent(String(given[name]))}`);
  return asked.length > 0 ? `${filled}?${asked.join('&')}` : filled;
}
