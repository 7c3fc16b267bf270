import type { Field, GivenOf, ValuesOf, Working } from './describe.js';
import { runWorking, type ResultOf } from './run.js';

/** A working that can be run where it is known: what goes in and comes out has its types. */
export interface Runnable<I extends readonly Field[], O extends readonly Field[]> extends Working<I, O> {
  run(input: GivenOf<I>): ResultOf<ValuesOf<I>, ValuesOf<O>>;
}

/** Keeps the literal types of the fields, so that `compute` is checked against them, and so is whoever runs it. */
export function defineWorking<const I extends readonly Field[], const O extends readonly Field[]>(working: Working<I, O>): Runnable<I, O> {
  return { ...working, run: (input) => runWorking(working, input) };
}
