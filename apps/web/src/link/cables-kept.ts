/** What this tablet remembers of the cables of instruments, by its name among what it keeps. */
export const CABLES = 'cables';
