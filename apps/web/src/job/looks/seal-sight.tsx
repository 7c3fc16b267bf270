import { SIGHT_FAULTS, rubberStands, sightName, sightWords, sightsAfter, sightsBefore, type SealSight, type SightDue } from '@jubb/book';
import { partName, type Seal, type Step } from '@jubb/sheet';
import { useState, type ReactElement } from 'react';
import { SealSketch } from '../../drawings/look.tsx';
import { LineField } from '../../kit/line-field.tsx';
import { Care } from '../../kit/pieces.tsx';
import { useDraft } from '../../kit/prefs.ts';
import { RecorderLayout } from '../recorder/layout.tsx';
import { useHere } from '../use-job.ts';

interface SealSightRecorderProps {
  readonly step: Step;
  readonly due: SightDue;
}

const FINE: Readonly<Record<SealSight, string>> = {
  place: 'It is so',
  new: 'Whole, the right one',
  'guard-on': 'It is on',
  'guard-off': 'It is off, all of it',
  spring: 'It is in its place',
  lip: 'It lies right',
  turns: 'It turns so',
};

/** What is done about it, and then looked at again. */
const MEND: Readonly<Record<SealSight, string>> = {
  place: 'Dress it, and look again. A worn track: inset or sleeve, in Workings, At this seal.',
  new: 'Put it aside, where nobody takes it for a new one, and take another.',
  'guard-on': 'Anew, and smooth, before the lip comes near it.',
  'guard-off': 'Nothing goes on until all of it is out: it ends in the bearing.',
  spring: 'Put it back with a blunt hook, and look all round.',
  lip: 'Out with it again: a lip that was turned under leaks.',
  turns: 'Find out why before it runs: lip, direction, depth.',
};

/** One look at a seal: right, or what is wrong with it. */
export function SealSightRecorder({ step, due: { seal, sight, notSo } }: SealSightRecorderProps): ReactElement {
  const { job, sheet, keep } = useHere();
  const [isWrong, setWrong] = useState(false);
  const [words, setWords] = useDraft(`${job.id}.${step.ref}.${sight}`, '');
  const say = (fault?: string): void => {
    keep({
      kind: 'seal-seen',
      payload: { seal: seal.ref, what: sight, fine: fault === undefined, ...(fault === undefined ? {} : { words: fault }) },
      step: step.ref,
    });
    setWrong(false);
    setWords(undefined);
  };
  const typed = (): void => {
    if (words.trim() !== '') say(words.trim());
  };
  // What is in and cannot be put right is put aside: another one goes in.
  const aside = (): void =>
    keep({ kind: 'seal-seen', payload: { seal: seal.ref, what: 'new', fine: false, words: notSo! }, step: step.ref });
  const isIn = sightsAfter(seal).includes(sight);
  if (isWrong)
    return (
      <RecorderLayout
        say={`${partName(sheet, seal.part)}, ${sightName(seal, sight)}: what is wrong?`}
        primary={words.trim() === '' ? undefined : { label: 'Keep it', run: typed }}
        others={[
          ...SIGHT_FAULTS[sight].map((fault, at) => ({ label: fault, key: `${at + 1}` as const, run: () => say(fault) })),
          { label: 'It is right after all', key: 'x', run: () => setWrong(false) },
        ]}
      >
        <LineField label="In words, where it is none of these" longest={300} text={words} onText={setWords} onEnter={typed} />
      </RecorderLayout>
    );
  return (
    <RecorderLayout
      say={
        <>
          {partName(sheet, seal.part)}, {sightName(seal, sight)}
          <br />
          <b>{sightWords(seal, sight)}</b>
        </>
      }
      drawing={seal.picture ? <SealSketch picture={seal.picture} /> : undefined}
      primary={{ label: notSo === undefined ? FINE[sight] : sight === 'new' ? 'This one is whole' : 'It is right now', run: () => say() }}
      others={[
        ...(notSo !== undefined && isIn ? [{ label: 'It is spoilt: another one', key: 'a' as const, run: aside }] : []),
        { label: 'Not right', key: 'x', run: () => setWrong(true) },
      ]}
    >
      {notSo === undefined ? null : <Care title={`Not right: ${notSo}`}>{MEND[sight]}</Care>}
      {sight === 'new' ? <Rubber seal={seal} /> : null}
      <SealActs seal={seal} now={sight} />
    </RecorderLayout>
  );
}

/** What the rubber is in what it meets, where the sheet says that. */
function Rubber({ seal }: { readonly seal: Seal }): ReactElement | null {
  const stands = rubberStands(seal);
  if (!stands) return null;
  const { rating, why } = stands;
  return (
    <p className={rating === 'fit' ? 'v-in' : rating === 'no' ? 'v-out' : 'v-unsure'}>
      {seal.material} in {seal.medium?.replaceAll('-', ' ')}: {rating}. <span className="soft">{why}</span>
    </p>
  );
}

/** What is done at a seal, in the order of the work, and where it stands. */
export function SealActs({ seal, now }: { readonly seal: Seal; readonly now: SealSight | 'way' | 'in' }): ReactElement {
  const acts = [...sightsBefore(seal), 'way', 'in', ...sightsAfter(seal)] as const;
  const at = acts.indexOf(now);
  return (
    <ol className="seal-acts soft mb-0" aria-label="What is done at a seal">
      {acts.map((act, index) => (
        <li key={act} className={index === at ? 'now' : index < at ? 'over' : ''} aria-current={index === at ? 'step' : undefined}>
          <span>{act === 'way' ? 'which way' : act === 'in' ? 'in' : sightName(seal, act)}</span>
        </li>
      ))}
    </ol>
  );
}
