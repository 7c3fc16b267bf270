/** What is injected by name rather than by class. */
export const CONFIG = Symbol('config');
