const TRIAL = 'trial-';

export const trialId = (key: string): string => `${TRIAL}${key}`;

/** A job that is on its page alone: the server knows nothing of it. */
export const isTrial = (jobId: string): boolean => jobId.startsWith(TRIAL);
