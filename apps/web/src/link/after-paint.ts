/** A page out of sight paints nothing: what waits for a frame goes on after so long. */
const UNSEEN_MS = 150;

/** Does something once the screen shows what was done so far: the next step comes before the wire. */
export function afterPaint(work: () => void): void {
  let isDone = false;
  const once = (): void => {
    if (isDone) return;
    isDone = true;
    work();
  };
  requestAnimationFrame(() => setTimeout(once));
  setTimeout(once, UNSEEN_MS);
}
