/** What was done so that nothing is lost: the last backup, and the last time one was brought back beside the shop. */
export interface CareView {
  readonly what: 'backup' | 'rehearsal' | 'walk';
  readonly at: string;
  readonly isGood: boolean;
  readonly words: string;
}

const DAY_MS = 24 * 3600 * 1000;
/** Backups are made at night: one that is older than two has missed one. */
const BACKUP_DAYS = 2;
const REHEARSAL_DAYS = 35;
/** What is kept is walked through every night as well. */
const WALK_DAYS = 3;

/** What a foreman has to see to, in words; nothing where all is well. `now` in ms since 1970; `command` is what is typed at the machine. */
export function careDue(care: readonly CareView[], now: number, command: string): readonly string[] {
  const days = ({ at }: CareView): number => Math.floor((now - Date.parse(at)) / DAY_MS);
  const backup = care.find(({ what }) => what === 'backup');
  const rehearsal = care.find(({ what }) => what === 'rehearsal');
  const walk = care.find(({ what }) => what === 'walk');
  const walked = walk && !walk.isGood ? [`What the shop keeps does not hold together: ${walk.words}`] : walkLate(walk, days, command);
  if (!backup)
    return [
      ...walked,
      `No backup is made of this shop. Whoever looks after its machine: ${command} backup, with a folder on another disk.`,
    ];
  const due: string[] = [...walked];
  if (!backup.isGood) due.push(`The last backup failed: ${backup.words}`);
  else if (days(backup) >= BACKUP_DAYS) due.push(`The last backup is ${days(backup)} days old.`);
  if (!rehearsal) due.push(`No backup was ever brought back to see whether it is whole: ${command} rehearse does it beside the shop.`);
  else if (!rehearsal.isGood) due.push(`The last backup that was brought back was not whole: ${rehearsal.words}`);
  else if (days(rehearsal) >= REHEARSAL_DAYS) due.push(`A backup was last brought back ${days(rehearsal)} days ago: ${command} rehearse.`);
  return due;
}

/** One that was never walked is, in its first night. */
function walkLate(walk: CareView | undefined, daysSince: (one: CareView) => number, command: string): readonly string[] {
  if (!walk || daysSince(walk) < WALK_DAYS) return [];
  return [`Nobody looked for ${daysSince(walk)} days whether chains, photos and shelves hold together: ${command} walk.`];
}
