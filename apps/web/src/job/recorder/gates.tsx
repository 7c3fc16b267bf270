import { isKind, keptOrNot, newMissing, newPartsMissing, notTriedAgain, unreadUnder, type SealFailure } from '@jubb/book';
import { find, partName, type Part, type Seal, type Setting, type Step } from '@jubb/sheet';
import { useState, type ReactElement } from 'react';
import { useNavigate } from 'react-router';
import { LineField } from '../../kit/line-field.tsx';
import { Care } from '../../kit/pieces.tsx';
import { useDraft } from '../../kit/prefs.ts';
import { useHere } from '../use-job.ts';
import { RecorderLayout } from './layout.tsx';
import { NewFasteners, NewOnes } from './new-ones.tsx';
import { OldSealShows } from './old-seal.tsx';
import { TryAgain } from './tried.tsx';
import { useTrial } from './use-trial.ts';

/** What a step asks for before it may be done; nothing when it may. */
export function useGate(step: Step): ReactElement | null {
  const { sheet, state } = useHere();
  const [isTrial, setTrial] = useTrial(step);
  const bare = unreadUnder(state, step);
  const needs = newMissing(sheet, step, state.live);
  if (bare && !state.handedOver) return <ReadFirst step={step} setting={bare} />;
  const unsaid = keptOrNot(sheet, step, state.intents);
  if (unsaid) return <KeepOrSpoil step={step} part={unsaid} />;
  if (needs?.why === 'no way back') return <NoWayBack step={step} />;
  if (needs?.why === 'new each time' && !isTrial)
    return <NewFasteners step={step} of={needs.of} onTrial={step.record.joint === undefined ? undefined : () => setTrial(true)} />;
  if (needs?.why === 'renewed') return <NewOnes step={step} parts={needs.parts} />;
  // What no step puts in is asked for before the signature.
  const [untried] = step.record.kind === 'sign' && !state.handedOver ? notTriedAgain(state.live) : [];
  if (untried) return <TryAgain key={untried.id} step={step} before={untried} />;
  const missing = step.record.kind === 'sign' ? newPartsMissing(sheet, state.live) : [];
  if (missing.length > 0) return <NewOnes step={step} parts={missing} />;
  const seal = find(sheet.seals, step.record.seal);
  const out = seal && state.live.filter(isKind('old-seal-out')).findLast(({ payload }) => payload.seal === seal.ref);
  return seal && !out?.payload.whole ? <OldSealOut step={step} seal={seal} tried={out !== undefined} /> : null;
}

/** Whether a part is kept picks the way that it comes off. */
function KeepOrSpoil({ step, part }: { readonly step: Step; readonly part: Part }): ReactElement {
  const { keep } = useHere();
  const say = (intent: 'keep' | 'sacrifice'): void => keep({ kind: 'intent', payload: { part: part.ref, intent }, step: step.ref });
  return (
    <RecorderLayout
      say={
        <>
          <b>{part.name}</b>: is it to be kept, or may it be spoilt in coming off?
        </>
      }
      primary={{ label: 'Keep it', run: () => say('keep') }}
      others={[{ label: 'It may be spoilt', key: 'x', run: () => say('sacrifice') }]}
    />
  );
}

/** What is closed is read no more: its last reading is its proof, and must be there first. */
function ReadFirst({ step, setting }: { readonly step: Step; readonly setting: Setting }): ReactElement {
  const { job, sheet, state } = useHere();
  const navigate = useNavigate();
  const at = sheet.steps.findLast(({ record }) => record.kind === 'setting' && record.setting === setting.ref);
  const wasRead = state.settings.find((run) => run.setting.ref === setting.ref)?.last !== undefined;
  const go = (): void => void navigate(`/jobs/${job.id}/${at?.stage ?? step.stage}?step=${at?.ref ?? ''}`);
  return (
    <RecorderLayout primary={{ label: `Read ${setting.name}`, run: go, disabled: !at }}>
      <Care title="Afterwards nobody can read it">
        “{step.title}” hides {setting.name}. {wasRead ? 'It was moved since it was read' : 'It was not read as it stays'}: its reading here
        is its proof.
      </Care>
    </RecorderLayout>
  );
}

/** Before what cannot be undone: its replacement lies here, or the job waits for it. */
function NoWayBack({ step }: { readonly step: Step }): ReactElement {
  const { job, sheet, keep } = useHere();
  const [seen, setSeen] = useDraft(`${job.id}.${step.ref}.here`, '');
  const parts = [...new Set([...(step.frees ?? []), ...(step.record.counts ?? []).map(({ part }) => part)])];
  const wanted = (job.scope?.partsFirst ?? []).filter(({ part, how }) => parts.includes(part) && how !== 'reserve');
  const go = (): void => {
    if (seen.trim() === '') return;
    keep({ kind: 'replacement-here', payload: { seen: seen.trim() }, step: step.ref });
    setSeen(undefined);
  };
  return (
    <RecorderLayout primary={{ label: 'It is here, go on', run: go, disabled: seen.trim() === '' }}>
      <Care title="No way back">
        After this the old part cannot go back in. See the new one first, and hold it against the old.
        {wanted.length > 0 ? ` Still to come for this job: ${wanted.map(({ part }) => partName(sheet, part)).join(', ')}.` : ''}
      </Care>
      <LineField
        label="What takes its place, as it lies here"
        longest={300}
        placeholder="Number on it, size, shelf"
        text={seen}
        onText={setSeen}
        onEnter={go}
      />
      <p className="soft mb-0">If it is not here, put the job on hold (H): the step waits with it.</p>
    </RecorderLayout>
  );
}

interface OldSealOutProps {
  readonly step: Step;
  readonly seal: Seal;
  /** Pieces of it were left in there. */
  readonly tried: boolean;
}

/** No new ring goes in before the old one is out whole, and its place is bare. */
function OldSealOut({ step, seal, tried }: OldSealOutProps): ReactElement {
  const { sheet, keep } = useHere();
  const [why, setWhy] = useState<SealFailure | ''>('');
  const out = (whole: boolean): void =>
    keep({ kind: 'old-seal-out', payload: { seal: seal.ref, whole, ...(why === '' ? {} : { why }) }, step: step.ref });
  const name = partName(sheet, seal.part);
  const { ask, some, fine } =
    seal.kind === 'sealant'
      ? {
          ask: 'Is the old sealant off both faces, all of it, and nothing of it fallen in?',
          some: 'Some of the old sealant is still there. Get it all off, and look where pieces of it fell.',
          fine: 'Off, all of it',
        }
      : {
          ask: `Is the old ${name} out, whole, with no piece left in there?`,
          some: `Pieces of the old ${name} are still in there. Get them all out, count them, and look into the groove.`,
          fine: 'Out, whole',
        };
  return (
    <RecorderLayout
      say={tried ? some : ask}
      primary={{ label: tried ? 'All of it is out now' : fine, run: () => out(true) }}
      others={tried ? [] : [{ label: 'Not all of it', key: 'x', run: () => out(false) }]}
    >
      <OldSealShows why={why} onWhy={setWhy} />
    </RecorderLayout>
  );
}
