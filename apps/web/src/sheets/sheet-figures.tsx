import { stageWords, windowWords } from '@jubb/book';
import { limitQuantity, limitWindow, partName, settingQuantity, settingWindow, windowOf, type SheetFile } from '@jubb/sheet';
import type { ReactElement, ReactNode } from 'react';
import Table from 'react-bootstrap/Table';
import { LookSketch, SealSketch } from '../drawings/look.tsx';
import { Trust } from '../kit/pieces.tsx';
import { percentWords } from '../kit/money.ts';

/** One row of figures: what it is, the figure, where it comes from. */
function Row({ what, figure, from }: { readonly what: ReactNode; readonly figure: ReactNode; readonly from: ReactNode }): ReactElement {
  return (
    <tr>
      <td>{what}</td>
      <td className="fig fs-5 text-nowrap">{figure}</td>
      <td>{from}</td>
    </tr>
  );
}

/** ", on each cylinder": a line that is there for each of several. */
function ofEach({ several = [] }: SheetFile, { each }: { readonly each?: string }): string {
  const name = several.find(({ ref }) => ref === each)?.name;
  return name === undefined ? '' : `, on each ${name}`;
}

export function Figures({ file }: { readonly file: SheetFile }): ReactElement {
  const { documents } = file;
  return (
    <section className="mb-4">
      <h2>Figures</h2>
      <Table>
        <thead>
          <tr>
            <th scope="col">What</th>
            <th scope="col">Figure</th>
            <th scope="col">From</th>
          </tr>
        </thead>
        <tbody>
          {file.joints.map((joint) => (
            <Row
              key={joint.ref}
              what={
                <>
                  <b>{joint.name}</b>: {joint.count} × {joint.thread}
                  {ofEach(file, joint)}
                  {joint.propertyClass ? `, class ${joint.propertyClass}` : ''}
                  {joint.hand === 'left' ? <b className="brass"> left-hand</b> : ''}, {joint.drive}, {joint.condition}
                  {joint.renewEachTime ? ', new each time' : ''}
                  <div className="soft">
                    {joint.stages
                      ? joint.stages.map(stageWords).join(', then ')
                      : `${joint.pattern.passes.map((share) => percentWords(share)).join(', ')}${joint.pattern.checkPass ? ', once round' : ''}`}
                    {joint.note ? `. ${joint.note}` : ''}
                  </div>
                </>
              }
              figure={joint.torque?.figure ?? 'no number'}
              from={joint.torque ? <Trust of={joint.torque} documents={documents} /> : null}
            />
          ))}
          {file.settings.map((setting) => (
            <Row
              key={setting.ref}
              what={
                <>
                  <b>{setting.name}</b>:{' '}
                  {setting.nut ? `${setting.nut.thread}, ${setting.nut.slots} slots, seat at ${setting.nut.seat.figure}. ` : ''}
                  {setting.how}
                  {setting.windowUsed ? (
                    <div className="soft">
                      Used bearings: {windowWords(windowOf(setting.windowUsed, settingQuantity(setting)), settingQuantity(setting))}
                    </div>
                  ) : null}
                </>
              }
              figure={windowWords(settingWindow(setting), settingQuantity(setting))}
              from={<Trust of={setting.window} documents={documents} />}
            />
          ))}
          {file.limits.map((limit) =>
            limit.service ? (
              <Row
                key={limit.ref}
                what={
                  <>
                    <b>{limit.name}</b>: {limit.how} {limit.between ? `Between ${limit.between}. ` : ''}
                    {limit.asNew ? (
                      <div className="soft">New: {windowWords(windowOf(limit.asNew, limitQuantity(limit)), limitQuantity(limit))}</div>
                    ) : null}
                  </>
                }
                figure={windowWords(limitWindow(limit), limitQuantity(limit))}
                from={<Trust of={limit.service} documents={documents} />}
              />
            ) : (
              <tr key={limit.ref}>
                <td colSpan={3}>
                  <b>{limit.name}</b>: {limit.how}{' '}
                  {(limit.looks ?? []).map((look) => (
                    <span key={look.ref} className="me-3 look">
                      {look.picture ? <LookSketch picture={look.picture} /> : null}
                      {look.words} <span className={`fig v-${look.verdict}`}>{look.verdict}</span>
                    </span>
                  ))}
                </td>
              </tr>
            ),
          )}
          {file.seals.map((seal) => (
            <Row
              key={seal.ref}
              what={
                <>
                  <b>{partName(file, seal.part)}</b>, {seal.material}: {seal.direction}. {seal.lubricant}.
                  <div className="soft">{seal.protect.join('. ')}</div>
                  {seal.picture ? <SealSketch picture={seal.picture} /> : null}
                </>
              }
              figure={seal.depth ? windowWords(windowOf(seal.depth, 'length')) : seal.size}
              from={seal.depth ? <Trust of={seal.depth} documents={documents} /> : null}
            />
          ))}
          {file.fluids.map((fluid) => (
            <Row
              key={fluid.ref}
              what={
                <>
                  <b>{fluid.name}</b>, {fluid.grade}. {fluid.rule}
                </>
              }
              figure={fluid.amount?.figure ?? fluid.fill}
              from={fluid.amount ? <Trust of={fluid.amount} documents={documents} /> : null}
            />
          ))}
          {(file.fastenings ?? []).map((fastening) => (
            <Row
              key={fastening.ref}
              what={
                <>
                  <b>{fastening.name}</b>: seated when {fastening.seated}
                  {fastening.renewEachTime ? ', new each time' : ''}
                </>
              }
              figure={`${fastening.count} ×`}
              from={fastening.kind}
            />
          ))}
        </tbody>
      </Table>
    </section>
  );
}

export function Parts({ file }: { readonly file: SheetFile }): ReactElement {
  return (
    <section className="mb-4">
      <h2>Parts</h2>
      <Table>
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
                {part.name}{' '}
                <span className="soft">
                  {[
                    part.designation,
                    part.mass,
                    part.equalSides && 'the same number each side',
                    part.knownWhenOpen && `known when open: ${part.knownWhenOpen}`,
                    part.note,
                  ]
                    .filter(Boolean)
                    .join(', ')}
                </span>
              </td>
              <td className="fig">
                {part.number ?? ''}
                {part.superseded ? <div className="soft">was {part.superseded.map(({ number }) => number).join(', ')}</div> : null}
              </td>
              <td>{part.policy}</td>
            </tr>
          ))}
          {(file.kits ?? []).map((kit) => (
            <tr key={kit.ref}>
              <td />
              <td>
                <b>{kit.name}</b>: <span className="soft">{kit.parts.map((ref) => partName(file, ref)).join(', ')}</span>
              </td>
              <td className="fig">{kit.number}</td>
              <td>kit</td>
            </tr>
          ))}
        </tbody>
      </Table>
    </section>
  );
}
