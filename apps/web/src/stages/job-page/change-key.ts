/** What is half typed of a change to a job stands under this key. */
export const changeKey = (jobId: string): string => `${jobId}.change`;
