import {
  STAGES,
  STAGE_NAMES,
  partName,
  stepsOf,
  windowWords,
  limitWindow,
  limitQuantity,
  settingQuantity,
  settingWindow,
  windowOf,
} from '@jubb/contract/job';
import { useState, type ReactElement } from 'react';
import { useParams } from 'react-router';
import { call } from '../api/client.ts';
import { queryClient, useSession, useSheet } from '../api/queries.ts';
import { Loading, Title, Trust, Wrong } from '../kit/pieces.tsx';
import { dayWords } from './today.tsx';

/** A sheet to read: its figures with where they come from, then the work in order. */
export function SheetPage(): ReactElement {
  const { id = '' } = useParams();
  const { data: sheet, error } = useSheet(id);
  const { data: session } = useSession();
  const [refusal, setRefusal] = useState<unknown>();
  if (!sheet) return error ? <Wrong error={error} /> : <Loading what="the sheet" />;
  const { file } = sheet;
  const approve = async (): Promise<void> => {
    try {
      await call('POST', `/sheets/${id}/approve`);
      await queryClient.invalidateQueries({ queryKey: ['sheets'] });
    } catch (problem) {
      setRefusal(problem);
    }
  };
  return (
    <>
      <Title
        sub={
          <>
            {file.family}. {file.machine}. Revision {sheet.revision}, <span className="trust">{sheet.status}</span>{' '}
            {sheet.approvedBy && sheet.approvedAt ? `by ${sheet.approvedBy}, ${dayWords(sheet.approvedAt)}` : ''}
          </>
        }
      >
        {file.title}
      </Title>
      <Wrong error={refusal} />
      {sheet.status === 'draft' && session?.person.role === 'foreman' ? (
        <button type="button" className="btn btn-primary mb-3" onClick={() => void approve()}>
          Approve it
        </button>
      ) : null}
      {file.notes ? <p>{file.notes}</p> : null}
      <h2>Figures</h2>
      <table className="table mb-4">
        <thead>
          <tr>
            <th scope="col">What</th>
            <th scope="col">Figure</th>
            <th scope="col">From</th>
          </tr>
        </thead>
        <tbody>
          {file.joints.map((joint) => (
            <tr key={joint.ref}>
              <td>
                {joint.name}: {joint.count} × {joint.thread}, {joint.condition}, passes{' '}
                {joint.pattern.passes.map((share) => `${Math.round(share * 100)} %`).join(', ')}
                {joint.pattern.checkPass ? ', once round' : ''}
              </td>
              <td className="fig fs-5">{joint.torque?.figure ?? 'no number'}</td>
              <td>{joint.torque ? <Trust of={joint.torque} documents={file.documents} /> : null}</td>
            </tr>
          ))}
          {file.settings.map((setting) => (
            <tr key={setting.ref}>
              <td>
                {setting.name}:{' '}
                {setting.nut ? `${setting.nut.thread}, ${setting.nut.slots} slots, seat at ${setting.nut.seat.figure}` : setting.how}
              </td>
              <td className="fig fs-5 text-nowrap">{windowWords(settingWindow(setting), settingQuantity(setting))}</td>
              <td>
                <Trust of={setting.window} documents={file.documents} />
              </td>
            </tr>
          ))}
          {file.limits.map((limit) =>
            limit.service ? (
              <tr key={limit.ref}>
                <td>
                  {limit.name}
                  {limit.asNew ? (
                    <div className="soft">
                      New: {windowWords(windowOf(limit.asNew, limitQuantity(limit)), limitQuantity(limit))}.{' '}
                      <Trust of={limit.asNew} documents={file.documents} />
                    </div>
                  ) : null}
                </td>
                <td className="fig fs-5 text-nowrap">{windowWords(limitWindow(limit), limitQuantity(limit))}</td>
                <td>
                  <Trust of={limit.service} documents={file.documents} />
                </td>
              </tr>
            ) : null,
          )}
          {file.seals.map(
            (seal) =>
              seal.depth && (
                <tr key={seal.ref}>
                  <td>
                    {partName(file, seal.part)}, {seal.material}, {seal.direction}: depth
                  </td>
                  <td className="fig fs-5 text-nowrap">{windowWords(windowOf(seal.depth, 'length'))}</td>
                  <td>
                    <Trust of={seal.depth} documents={file.documents} />
                  </td>
                </tr>
              ),
          )}
          {file.fluids.map((fluid) => (
            <tr key={fluid.ref}>
              <td>
                {fluid.name}, {fluid.grade}
              </td>
              <td className="fig fs-5">{fluid.amount?.figure ?? fluid.fill}</td>
              <td>{fluid.amount ? <Trust of={fluid.amount} documents={file.documents} /> : null}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <h2>Parts</h2>
      <table className="table mb-4">
        <thead>
          <tr>
            <th scope="col">Pieces</th>
            <th scope="col">Part</th>
            <th scope="col">Number</th>
            <th scope="col">Policy</th>
          </tr>
        </thead>
        <tbody>
          {file.parts.map((part) => (
            <tr key={part.ref}>
              <td className="fig fs-5">{part.quantity}</td>
              <td>
                {part.name} <span className="soft">{part.mass}</span>
              </td>
              <td className="fig">{part.number ?? ''}</td>
              <td>{part.policy}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {STAGES.map((stage) => {
        const steps = stepsOf(file, stage);
        return steps.length === 0 ? null : (
          <section key={stage} className="mb-3">
            <h2>{STAGE_NAMES[stage]}</h2>
            <ol>
              {steps.map((step) => (
                <li key={step.ref}>
                  <b>{step.title}.</b> {step.act}{' '}
                  {step.cautions?.length ? (
                    <span className="brass">
                      Care: {step.cautions.map((ref) => file.cautions.find((caution) => caution.ref === ref)?.text).join(' ')}
                    </span>
                  ) : null}
                </li>
              ))}
            </ol>
          </section>
        );
      })}
    </>
  );
}
