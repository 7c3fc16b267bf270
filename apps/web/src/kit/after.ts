/** Does the work after so many ms, unless the answer is called before. */
export function after(work: () => void, ms: number): () => void {
  const timer = setTimeout(work, ms);
  return () => clearTimeout(timer);
}
