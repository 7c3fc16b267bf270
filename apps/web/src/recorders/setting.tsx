import { baseOf, settingWindow, type SettingRun, type Step } from '@jubb/contract/job';
import { workings } from '@jubb/core';
import { useState, type ReactElement } from 'react';
import { CastleNut } from '../drawings/castle-nut.tsx';
import { SettingLine } from '../drawings/setting-line.tsx';
import { Trust } from '../kit/pieces.tsx';
import { ToolPick, pickTool, rememberTool } from '../kit/tool-pick.tsx';
import { useUnits } from '../kit/units.ts';
import { useHere } from '../job/use-job.ts';
import { RecorderLayout } from './layout.tsx';
import { Measure } from './measure.tsx';

/** Seat, read, turn to the slot, read again: until a reading is in. */
export function SettingRecorder({ step }: { readonly step: Step }): ReactElement | null {
  const { state } = useHere();
  const run = state.settings.find((candidate) => candidate.setting.ref === step.record.setting);
  if (!run) return null;
  switch (run.phase) {
    case 'seat':
      return <Seat run={run} step={step} />;
    case 'read':
      return <ReadPlay run={run} step={step} moment="now" />;
    case 'turn':
      return <Turn run={run} step={step} />;
    case 'read-locked':
      return <ReadPlay run={run} step={step} moment="locked" />;
    case 'set':
      return <RecorderLayout say="Set, and inside the window." drawing={<Line run={run} />} />;
  }
}

export function ProofRecorder({ step }: { readonly step: Step }): ReactElement | null {
  const { state } = useHere();
  const run = state.settings.find((candidate) => candidate.setting.ref === step.record.setting);
  return run ? <ReadPlay run={run} step={step} moment="proved" /> : null;
}

interface PhaseProps {
  readonly run: SettingRun;
  readonly step: Step;
}

function Seat({ run, step }: PhaseProps): ReactElement {
  const { job, sheet, keep } = useHere();
  const units = useUnits();
  const [wrenchId, setWrenchId] = useState<string>();
  const { nut, ref, how } = run.setting;
  const torque = baseOf(nut.seat.figure, 'torque');
  const backOff = baseOf(nut.backOff, 'angle');
  const wrench = pickTool(job.tools, 'torque-wrench', torque, wrenchId);
  const { figure, unit, other } = units.show(torque, 'torque');
  const seated = (): void => {
    if (wrench) rememberTool(wrench);
    keep({
      kind: 'nut',
      payload: { setting: ref, act: 'seated', angle: -backOff, torque },
      step: step.ref,
      ...(wrench ? { toolId: wrench.id } : {}),
    });
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
      say={`Seat the bearings, turning the hub. Then back off ${backOff}° and let it settle.`}
      primary={{ label: 'Seated and backed off', run: seated, disabled: !wrench }}
      drawing={run.tries.length > 0 ? <Line run={run} /> : <CastleNut slots={nut.slots} openings={nut.openings} angle={-backOff} />}
    >
      <ToolPick
        label="Wrench"
        tools={job.tools.filter((tool) => tool.kind === 'torque-wrench')}
        chosen={wrench}
        size={torque}
        onChoose={setWrenchId}
      />
      {how ? <p className="soft mt-2 mb-0">{how}</p> : null}
    </RecorderLayout>
  );
}

function ReadPlay({ run, step, moment }: PhaseProps & { readonly moment: 'now' | 'locked' | 'proved' }): ReactElement {
  const { sheet, keep } = useHere();
  const { setting } = run;
  const words = {
    now: 'Dial reading with the nut where it is',
    locked: 'Dial reading with the nut at its slot',
    proved: 'Dial reading as it leaves the shop',
  }[moment];
  return (
    <Measure
      key={moment}
      draftKey={`${step.ref}.${moment}.${run.tries.length}`}
      name={setting.name}
      quantity="length"
      window={settingWindow(setting)}
      toolKind={setting.tool}
      repeats={setting.repeats}
      least={0}
      most={5}
      kind="end-play"
      payload={(readings) => ({ setting: setting.ref, moment, readings, unit: 'mm' })}
      onKeep={(payload, tool) => keep({ kind: 'end-play', payload, step: step.ref, ...(tool ? { toolId: tool.id } : {}) })}
      intro={
        <p className="mb-2">
          {words}: pull and push, {setting.repeats} times.
        </p>
      }
      source={<Trust of={setting.window} documents={sheet.documents} />}
      drawing={<Line run={run} />}
    />
  );
}

function Turn({ run, step }: PhaseProps): ReactElement {
  const { keep } = useHere();
  const units = useUnits();
  const [shown, setShown] = useState(false);
  const { setting, advice, playNow = 0 } = run;
  const angle = Number(advice?.output['angle'] ?? 0);
  const after = Number(advice?.output['play'] ?? 0);
  const slots = Math.abs(Number(advice?.output['slotsMoved'] ?? 0));
  const inside = advice?.output['verdict'] === 'in';
  const window = settingWindow(setting);
  const what =
    angle === 0
      ? 'Leave it at this slot and lock it.'
      : `${angle > 0 ? 'Tighten' : 'Loosen'} ${Math.abs(angle)}°, ${slots === 1 ? 'one slot' : `${slots} slots`}, and lock it.`;
  const positions = Number(advice?.output['positions'] ?? 0);
  const steps = shown && advice ? workings.run(advice.id, advice.input) : undefined;
  return (
    <RecorderLayout
      number={{ figure: String(Math.abs(angle)), unit: '°' }}
      say={
        <>
          <b>{what}</b>
          <br />
          <span className="soft">
            Leaves {units.text(after, 'length', window)}: {units.text(Math.abs(playNow - after), 'length')}{' '}
            {angle >= 0 ? 'taken up' : 'let out'}. The nut locks every {Math.round((360 / positions) * 10) / 10}°.
          </span>
        </>
      }
      primary={{
        label: 'Turned and locked',
        run: () => keep({ kind: 'nut', payload: { setting: setting.ref, act: 'turned', angle }, step: step.ref }),
      }}
      others={[
        { label: shown ? 'Hide the working' : 'Show the working', key: 'w', run: () => setShown(!shown) },
        {
          label: 'Seat it again',
          key: 'b',
          run: () =>
            keep({
              kind: 'nut',
              payload: {
                setting: setting.ref,
                act: 'seated',
                angle: -baseOf(setting.nut.backOff, 'angle'),
                torque: baseOf(setting.nut.seat.figure, 'torque'),
              },
              step: step.ref,
            }),
        },
      ]}
      drawing={<CastleNut slots={setting.nut.slots} openings={setting.nut.openings} angle={angle} />}
    >
      {inside ? null : (
        <p className="v-out">No slot lands inside the window. This is the nearest. Another washer or nut moves the slots.</p>
      )}
      <SettingLine
        name={setting.name}
        {...window}
        aim={setting.aim ? baseOf(setting.aim.figure, 'length') : undefined}
        tries={run.tries.map((one) => one.play)}
        after={after}
        angle={angle}
      />
      {steps?.ok ? (
        <ol className="mt-2">
          {steps.run.steps.map((line) => (
            <li key={line.say}>
              {line.say} <span className="fig">{line.numbers}</span>
            </li>
          ))}
        </ol>
      ) : null}
    </RecorderLayout>
  );
}

function Line({ run }: { readonly run: SettingRun }): ReactElement {
  const units = useUnits();
  const window = settingWindow(run.setting);
  return (
    <>
      <SettingLine name={run.setting.name} {...window} tries={run.tries.map((one) => one.play)} />
      {run.tries.length > 0 ? (
        <table className="table">
          <thead>
            <tr>
              <th scope="col">Try</th>
              <th scope="col">Turned</th>
              <th scope="col">Reading</th>
            </tr>
          </thead>
          <tbody>
            {run.tries.map((one, index) => (
              <tr key={one.entry.id}>
                <td>{index + 1}</td>
                <td>{one.before}</td>
                <td className="fig fs-5">
                  {units.show(one.play, 'length', window).figure}{' '}
                  {one.verdict ? <small className={`v-${one.verdict}`}>{one.verdict}</small> : null}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      ) : null}
    </>
  );
}
