import { proofReads, sharesOf, type SettingRun, type Share } from '@jubb/book';
import type { Step } from '@jubb/sheet';
import type { ReactElement } from 'react';
import Table from 'react-bootstrap/Table';
import { Link } from 'react-router';
import { RecorderLayout } from '../../job/recorder/layout.tsx';
import { useHere } from '../../job/use-job.ts';
import { Trust } from '../../kit/pieces.tsx';
import { useUnits } from '../../kit/units.ts';
import { SettingReading } from './setting-reading.tsx';

interface WholeProofProps {
  readonly run: SettingRun;
  readonly step: Step;
}

/** The closed unit is turned as a whole; what else turns with it was read before, and is taken off. */
export function WholeProof({ run, step }: WholeProofProps): ReactElement {
  const { sheet, state } = useHere();
  const { setting, bearings } = run;
  const shares = sharesOf(setting, sheet, state.live);
  const unread = shares.find(({ torque }) => torque === undefined);
  if (unread) return <ReadShare share={unread} />;
  const less = shares.map(({ setting: of, limit, torque = 0 }) => ({ ...(of && { setting: of }), ...(limit && { limit }), torque }));
  const off = less.reduce((sum, { torque }) => sum + torque, 0);
  const { quantity, window } = proofReads(setting, bearings);
  // What the balance should show is said, not what is left when the rest is taken off.
  const { from = 0, to = 0 } = window;
  const whole = { from: from + off, to: to + off };
  return (
    <SettingReading
      run={run}
      step={step}
      moment="proved"
      name={setting.proof?.reads}
      quantity={quantity}
      window={whole}
      toolKind={setting.proof?.tool}
      bearings={bearings}
      less={less}
      intro={<Shares run={run} shares={shares} whole={whole} />}
      source={<Trust of={setting.proof?.window ?? setting.window} documents={sheet.documents} />}
    />
  );
}

interface SharesProps {
  readonly run: SettingRun;
  readonly shares: readonly Share[];
  readonly whole: { readonly from: number; readonly to: number };
}

/** What turns with it, and what the whole should show by that. */
function Shares({ run: { setting, bearings }, shares, whole }: SharesProps): ReactElement {
  const units = useUnits();
  const { window } = proofReads(setting, bearings);
  return (
    <Table size="sm" className="mb-2 w-auto">
      <tbody>
        {shares.map(({ name, torque = 0, ratio }) => (
          <tr key={name}>
            <th scope="row">{name}</th>
            <td className="fig text-end">{units.text(torque, 'torque')}</td>
            <td className="soft">{ratio === 1 ? 'read before' : `read before, over ${ratio}`}</td>
          </tr>
        ))}
        <tr>
          <th scope="row">{setting.proof?.window ? 'What is left' : setting.name}</th>
          <td className="fig text-end">
            {units.text(window.from ?? 0, 'torque')} to {units.text(window.to ?? 0, 'torque')}
          </td>
          <td className="soft">wanted</td>
        </tr>
        <tr>
          <th scope="row">{setting.proof?.reads}</th>
          <td className="fig text-end">
            <b>
              {units.text(whole.from, 'torque')} to {units.text(whole.to, 'torque')}
            </b>
          </td>
          <td className="soft">should show</td>
        </tr>
      </tbody>
    </Table>
  );
}

/** Nothing is taken off that nobody read. */
function ReadShare({ share }: { readonly share: Share }): ReactElement {
  const { job, sheet } = useHere();
  const at = sheet.steps.find(
    ({ record }) =>
      record.kind !== 'proof' && (share.limit === undefined ? record.setting === share.setting : record.limit === share.limit),
  );
  return (
    <RecorderLayout
      say={
        <>
          First: <b>{share.name}</b>. It turns with the whole, and was not read.
        </>
      }
    >
      {at ? (
        <Link className="btn btn-primary" to={`/jobs/${job.id}/${at.stage}?step=${at.ref}`}>
          Read it
        </Link>
      ) : null}
    </RecorderLayout>
  );
}
