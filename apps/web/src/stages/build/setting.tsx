import { actOf, isProvedWhole, readsAsFound, type Bearings, type SettingRun } from '@jubb/book';
import { baseOf, settingQuantity, settingWindow, type Step } from '@jubb/sheet';
import { slotsTurned, workings } from '@jubb/core';
import { useState, type ReactElement } from 'react';
import Button from 'react-bootstrap/Button';
import Table from 'react-bootstrap/Table';
import { CastleNut } from '../../drawings/castle-nut.tsx';
import { SettingLine } from '../../drawings/setting-line.tsx';
import { Trust } from '../../kit/pieces.tsx';
import { useDraft, useUnkept } from '../../kit/prefs.ts';
import { ToolPick, pickTool, rememberTool } from '../../kit/tool-pick.tsx';
import { useUnits } from '../../kit/units.ts';
import { useHere } from '../../job/use-job.ts';
import { RecorderLayout } from '../../job/recorder/layout.tsx';
import { EarlierSettings } from '../measure/earlier.tsx';
import { unkeptKey } from '../../job/recorder/use-readings.ts';
import { SetByAct } from './set-by-act.tsx';
import { SettingGuide } from './setting-guide.tsx';
import { SettingReading } from './setting-reading.tsx';
import { WholeProof } from './whole-proof.tsx';

/** Seat, read, turn to the slot, read again: until a reading is in. */
export function SettingRecorder({ step }: { readonly step: Step }): ReactElement | null {
  const { job, state } = useHere();
  // A reading that was begun here stays here, whatever another tablet keeps meanwhile.
  const begunNow = useUnkept(unkeptKey(`${job.id}.${step.ref}.now`));
  const begunLocked = useUnkept(unkeptKey(`${job.id}.${step.ref}.locked`));
  const [seatAgain, setSeatAgain] = useState(false);
  const run = state.settings.find((candidate) => candidate.setting.ref === step.record.setting);
  if (!run) return null;
  if (readsAsFound(step)) return <ReadPlay run={run} step={step} moment="found" />;
  const begun = begunLocked ? 'read-locked' : begunNow ? 'read' : undefined;
  switch (begun ?? (seatAgain ? 'seat' : run.phase)) {
    case 'seat':
      return <Seat run={run} step={step} onSeated={() => setSeatAgain(false)} />;
    case 'read':
      return <ReadPlay run={run} step={step} moment="now" />;
    case 'turn':
      return <Turn run={run} step={step} onSeatAgain={() => setSeatAgain(true)} />;
    case 'read-locked':
      return <ReadPlay run={run} step={step} moment="locked" />;
    case 'act':
      return <SetByAct run={run} step={step} wide={<Line run={run} />} />;
    case 'set':
      return <RecorderLayout say={setWords(run)} wide={<Line run={run} />} />;
  }
}

function setWords({ tries }: SettingRun): string {
  const accepted = tries.at(-1)?.accepted;
  return accepted === undefined ? 'Set, and inside the window.' : `Unsure, and accepted by the foreman: ${accepted}.`;
}

export function ProofRecorder({ step }: { readonly step: Step }): ReactElement | null {
  const { state } = useHere();
  const run = state.settings.find((candidate) => candidate.setting.ref === step.record.setting);
  if (!run) return null;
  return isProvedWhole(run.setting) ? <WholeProof run={run} step={step} /> : <ReadPlay run={run} step={step} moment="proved" />;
}

interface PhaseProps {
  readonly run: SettingRun;
  readonly step: Step;
}

function Seat({ run, step, onSeated }: PhaseProps & { readonly onSeated: () => void }): ReactElement | null {
  const { job, sheet, keep } = useHere();
  const units = useUnits();
  const [wrenchId, setWrenchId] = useState<string>();
  const { nut, ref, how } = run.setting;
  if (!nut) return null;
  const torque = baseOf(nut.seat.figure, 'torque');
  const backOff = baseOf(nut.backOff, 'angle');
  const wrench = pickTool(job.tools, 'torque-wrench', { quantity: 'torque', base: torque }, wrenchId);
  const { figure, unit, other } = units.show(torque, 'torque');
  const seated = (): void => {
    if (wrench) rememberTool(wrench);
    keep({
      kind: 'nut',
      payload: { setting: ref, act: 'seated', angle: -backOff, torque },
      step: step.ref,
      ...(wrench ? { toolId: wrench.id } : {}),
    });
    onSeated();
  };
  return (
    <RecorderLayout
      number={{
        figure,
        unit,
        under: (
          <>
            {other ? <b className="fig fs-4 me-2">{other}</b> : null}
            <Trust of={nut.seat} documents={sheet.documents} />
          </>
        ),
      }}
      say={`Seat the bearings, turning what runs on them. Then back off about ${backOff}°, to where a slot shows the hole.`}
      primary={{ label: 'Seated and backed off', run: seated, disabled: !wrench }}
      drawing={<CastleNut slots={nut.slots} openings={nut.openings} angle={-backOff} />}
      wide={run.tries.length > 0 ? <Line run={run} /> : undefined}
    >
      <ToolPick
        label="Wrench"
        tools={job.tools}
        kind="torque-wrench"
        chosen={wrench}
        size={{ quantity: 'torque', base: torque }}
        onChoose={setWrenchId}
      />
      {how ? <p className="soft mt-2 mb-0">{how}</p> : null}
      <EarlierSettings run={run} bearings={run.bearings} />
    </RecorderLayout>
  );
}

function ReadPlay({ run, step, moment }: PhaseProps & { readonly moment: 'found' | 'now' | 'locked' | 'proved' }): ReactElement {
  const { sheet } = useHere();
  const { setting, readFirst } = run;
  const quantity = settingQuantity(setting);
  const units = useUnits();
  const { bearings, pick } = useBearings(run);
  const window = settingWindow(setting, bearings);
  const by = actOf(setting);
  const words = {
    now: by === 'locked' ? 'Set the nut, before it is locked' : 'Dial reading with the nut where it is',
    locked:
      setting.method === 'castle-nut' ? 'Dial reading with the nut at its slot' : by ? 'Read it as it stands' : 'Set it, then read it',
    proved: 'As it leaves the shop',
    found: 'As it is found, before it is touched',
  }[moment];
  return (
    <SettingReading
      run={run}
      step={step}
      moment={moment}
      quantity={quantity}
      window={window}
      bearings={bearings}
      intro={
        <p className="mb-2">
          {words}
          {setting.kind === 'end-play' ? `: pull and push, ${setting.repeats} times.` : '.'}{' '}
          {moment === 'locked' && by === 'locked' ? 'When it is in, bend the tab, or secure the nut as the sheet says. ' : null}
          {moment !== 'proved' && setting.how ? <span className="soft">{setting.how}</span> : null}
          {moment === 'now' && readFirst !== undefined ? (
            <b className="d-block">
              Locking changed it the last time: before it is locked it should read {units.text(readFirst, quantity, window)}.
            </b>
          ) : null}
          {setting.windowUsed ? <BearingsPick bearings={bearings} onPick={pick} /> : null}
          {moment === 'now' || moment === 'locked' ? <EarlierSettings run={run} bearings={bearings} /> : null}
        </p>
      }
      source={<Trust of={bearings === 'used' ? (setting.windowUsed ?? setting.window) : setting.window} documents={sheet.documents} />}
      wide={
        (moment === 'now' || moment === 'locked') && setting.method !== 'castle-nut' ? (
          <>
            {run.tries.length > 0 ? <Line run={run} /> : null}
            <SettingGuide run={run} step={step} />
          </>
        ) : run.tries.length > 0 ? (
          <Line run={run} />
        ) : undefined
      }
    />
  );
}

/** Whose window holds for the next reading: as it was decided, or as somebody says. */
function useBearings({ setting, bearings: decided }: SettingRun): {
  readonly bearings: Bearings;
  readonly pick: (bearings: Bearings) => void;
} {
  const { job } = useHere();
  const [picked, pick] = useDraft<Bearings | ''>(`${job.id}.${setting.ref}.bearings`, '');
  return { bearings: picked === '' ? decided : picked, pick };
}

function BearingsPick({ bearings, onPick }: { readonly bearings: Bearings; readonly onPick: (bearings: Bearings) => void }): ReactElement {
  return (
    <span className="d-flex flex-wrap gap-2 my-2" role="group" aria-label="Bearings">
      {(['new', 'used'] as const).map((one) => (
        <Button
          key={one}
          variant="plain"
          className={one === bearings ? 'on' : ''}
          aria-pressed={one === bearings}
          onClick={() => onPick(one)}
        >
          {one === 'new' ? 'New bearings' : 'Used bearings'}
        </Button>
      ))}
    </span>
  );
}

/** A lock position as the working lists it. */
interface LockPosition {
  readonly angle: number;
  readonly play: number;
  readonly inside: boolean;
}

function turnWords(angle: number, positions: number): string {
  if (angle === 0) return 'Leave it at this slot and lock it.';
  const slots = slotsTurned(angle, positions);
  return `${angle > 0 ? 'Tighten' : 'Loosen'} ${Math.abs(angle)}°, ${slots === 1 ? 'one slot' : `${slots} slots`}, and lock it.`;
}

function Turn({ run, step, onSeatAgain }: PhaseProps & { readonly onSeatAgain: () => void }): ReactElement | null {
  const { keep } = useHere();
  const units = useUnits();
  const [shown, setShown] = useState<'working' | 'slots'>();
  const [otherAngle, setOtherAngle] = useState<number>();
  const { setting, advice, playNow = 0 } = run;
  if (!advice) return null;
  const turns = (advice.output['turns'] as readonly LockPosition[]).filter(({ play }) => play >= 0);
  const advised = turns.find(({ angle }) => angle === advice.output['angle']);
  const chosen = turns.find(({ angle }) => angle === otherAngle) ?? advised;
  const { nut } = setting;
  if (!chosen || !nut) return null;
  const { window } = run;
  const positions = Number(advice.output['positions']);
  const toggle = (what: 'working' | 'slots'): void => setShown(shown === what ? undefined : what);
  const worked = shown === 'working' ? workings.run(advice.id, advice.input) : undefined;
  return (
    <RecorderLayout
      number={{ figure: `${Math.abs(chosen.angle)}°`, unit: '' }}
      say={
        <>
          <b>{turnWords(chosen.angle, positions)}</b>
          <br />
          <span className="soft">
            Leaves {units.text(chosen.play, 'length', window)}: {units.text(Math.abs(playNow - chosen.play), 'length')}{' '}
            {chosen.angle >= 0 ? 'taken up' : 'let out'}. The nut locks every {Math.round((360 / positions) * 10) / 10}°.
          </span>
        </>
      }
      primary={{
        label: 'Turned, locked',
        run: () => keep({ kind: 'nut', payload: { setting: setting.ref, act: 'turned', angle: chosen.angle }, step: step.ref }),
      }}
      others={[
        { label: 'Other slot', key: 't', run: () => toggle('slots') },
        { label: 'Working', key: 'w', run: () => toggle('working') },
        { label: 'Seat again', key: 'a', run: onSeatAgain },
      ]}
      drawing={<CastleNut slots={nut.slots} openings={nut.openings} angle={chosen.angle} />}
      wide={
        <SettingLine
          name={setting.name}
          {...window}
          aim={setting.aim ? baseOf(setting.aim.figure, 'length') : undefined}
          tries={run.tries.map((one) => one.play)}
          after={chosen.play}
          angle={chosen.angle}
        />
      }
    >
      {chosen.inside ? null : (
        <p className="v-out">
          {chosen === advised
            ? 'No slot lands inside the window. This is the nearest. Another washer or nut moves the slots.'
            : 'This slot lands outside the window.'}
        </p>
      )}
      {shown === 'slots' ? (
        <div className="d-flex flex-wrap gap-2" role="group" aria-label="Where it can be locked">
          {turns.map(({ angle, play, inside }) => (
            <button
              key={angle}
              type="button"
              className={`btn ${angle === chosen.angle ? 'btn-plain on' : 'btn-plain'}`}
              aria-pressed={angle === chosen.angle}
              onClick={() => setOtherAngle(angle)}
            >
              {angle > 0 ? '+' : ''}
              {angle}° leaves {units.text(play, 'length', window)}{' '}
              <span className={inside ? 'v-in' : 'v-out'}>{inside ? 'in' : 'out'}</span>
            </button>
          ))}
        </div>
      ) : null}
      {worked?.ok ? (
        <ol className="mt-2">
          {worked.run.steps.map((line) => (
            <li key={line.say}>
              {line.say} {line.numbers ? <b className="fig">{line.numbers}</b> : null}
            </li>
          ))}
        </ol>
      ) : null}
    </RecorderLayout>
  );
}

function Line({ run }: { readonly run: SettingRun }): ReactElement {
  const units = useUnits();
  const { window } = run;
  const quantity = settingQuantity(run.setting);
  return (
    <>
      {quantity === 'length' ? (
        <SettingLine
          name={run.setting.name}
          {...window}
          tries={run.tries.map((one) => one.play)}
          isPlay={run.setting.kind === 'end-play'}
        />
      ) : null}
      {run.tries.length > 0 ? (
        <Table>
          <thead>
            <tr>
              <th scope="col">Try</th>
              <th scope="col">Done before</th>
              <th scope="col">Reading</th>
            </tr>
          </thead>
          <tbody>
            {run.tries.map((one, index) => (
              <tr key={one.entry.id}>
                <td>{index + 1}</td>
                <td>{one.before}</td>
                <td className="fig fs-5">
                  {units.show(one.play, quantity, window).figure}{' '}
                  {one.verdict ? <small className={`v-${one.verdict}`}>{one.verdict}</small> : null}
                  {one.accepted === undefined ? null : <small className="soft d-block">accepted: {one.accepted}</small>}
                </td>
              </tr>
            ))}
          </tbody>
        </Table>
      ) : null}
    </>
  );
}
