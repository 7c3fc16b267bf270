import type { SheetFile } from '@jubb/sheet';

/** What is injected by name rather than by class. */
export const CONFIG = Symbol('config');

/** The sheets that come with Jubb, read when they are asked for: seldom, and some megabytes. */
export type Examples = () => Promise<readonly SheetFile[]>;
export const EXAMPLES = Symbol('examples');
