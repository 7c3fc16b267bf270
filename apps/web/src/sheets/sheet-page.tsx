import {
  STAGES,
  STAGE_NAMES,
  limitQuantity,
  limitWindow,
  partName,
  settingQuantity,
  settingWindow,
  stageWords,
  stepsOf,
  windowOf,
  windowWords,
  type SheetFile,
  type SheetView,
  type Step,
} from '@jubb/contract/job';
import { useState, type ReactElement, type ReactNode } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { call } from '../api/client.ts';
import { queryClient, useSession, useSheet } from '../api/queries.ts';
import { useProposals, useRevisions } from './queries.ts';
import { Care, Loading, Title, Trust, Wrong } from '../kit/pieces.tsx';
import { PinnedPage } from '../kit/pinned-page.tsx';
import { dayWords } from '../places/today.tsx';
import { Completeness } from './completeness.tsx';
import { FindingList } from './finding-list.tsx';
import { LookSketch, SealSketch } from '../drawings/look.tsx';
import { RoutingPicture } from '../drawings/routing.tsx';
import { useReview } from './use-review.ts';
import './sheets.scss';

/** A sheet to read: what it has, how its variants are told, its figures with where they come from, the work in order. */
export function SheetPage(): ReactElement {
  const { id = '' } = useParams();
  const { data: sheet, error } = useSheet(id);
  const go = useNavigate();
  const review = useReview(sheet?.file);
  if (!sheet) return error ? <Wrong error={error} /> : <Loading what="the sheet" />;
  const { file } = sheet;
  const stops = review?.findings.filter(({ severity }) => severity === 'stop').length ?? 0;
  return (
    <>
      <Title
        sub={
          <>
            {file.family}. {file.machine}. Revision {sheet.revision}, <span className="trust">{sheet.status}</span>{' '}
            {sheet.approvedBy && sheet.approvedAt ? `by ${sheet.approvedBy}, ${dayWords(sheet.approvedAt)}` : ''}
            {sheet.jobs > 0 ? `. ${sheet.jobs === 1 ? 'One job goes' : `${sheet.jobs} jobs go`} by it now.` : ''}
          </>
        }
      >
        {file.title}
      </Title>
      <Acts sheet={sheet} stops={stops} />
      {file.notes ? <p className="notes">{file.notes}</p> : null}
      <div className="sheet-columns">
        <div>
          <Identity file={file} />
          <Figures file={file} />
          <Parts file={file} />
          <Work file={file} />
        </div>
        <aside aria-label="About the sheet">
          <h2>What it has</h2>
          <Completeness parts={review?.complete ?? sheet.complete} long />
          <h2 className="mt-3">What the checker says</h2>
          <FindingList
            findings={review?.findings}
            onJump={
              sheet.status === 'draft'
                ? ({ list, ref }) => void go(`/sheets/${id}/edit${list === 'sheet' ? '' : `/${list}?line=${ref}`}`)
                : undefined
            }
          />
          <Proposals sheet={sheet} />
          <Revisions sheet={sheet} />
        </aside>
      </div>
    </>
  );
}

function Acts({ sheet, stops }: { readonly sheet: SheetView; readonly stops: number }): ReactElement {
  const { data: session } = useSession();
  const [refusal, setRefusal] = useState<unknown>();
  const go = useNavigate();
  const id = sheet.revisionId;
  const isForeman = session?.person.role === 'foreman';
  const mayWrite = isForeman || session?.person.role === 'mechanic';
  const act = async (work: () => Promise<void>): Promise<void> => {
    setRefusal(undefined);
    try {
      await work();
      await queryClient.invalidateQueries({ queryKey: ['sheets'] });
    } catch (problem) {
      setRefusal(problem);
    }
  };
  const edit = (): Promise<void> =>
    act(async () => {
      const { revisionId } = await call<{ revisionId: string }>('POST', `/sheets/${id}/draft`);
      void go(`/sheets/${revisionId}/edit`);
    });
  return (
    <>
      <Wrong error={refusal} />
      <div className="keys mb-3">
        {sheet.status === 'draft' && isForeman ? (
          <button type="button" className="btn btn-primary" onClick={() => void act(() => call('POST', `/sheets/${id}/approve`))}>
            {stops > 0 ? `Approve it (${stops} to mend first)` : 'Approve it'}
          </button>
        ) : null}
        {mayWrite ? (
          <button type="button" className="btn btn-plain" onClick={() => void edit()}>
            {sheet.status === 'draft' ? 'Go on with the draft' : 'Change it in a draft'}
          </button>
        ) : null}
        {sheet.status === 'approved' && isForeman ? (
          <button type="button" className="btn btn-plain" onClick={() => void act(() => call('POST', `/sheets/${id}/withdraw`))}>
            Withdraw it
          </button>
        ) : null}
        <a className="btn btn-plain" href={`/api/v1/sheets/${id}/file.json`}>
          JSON
        </a>
        <a className="btn btn-plain" href={`/api/v1/sheets/${id}/file.yaml`}>
          YAML
        </a>
        {(['parts', 'joints', 'limits'] as const).map((list) => (
          <a key={list} className="btn btn-plain" href={`/api/v1/sheets/${id}/csv/${list}`}>
            CSV {list}
          </a>
        ))}
      </div>
    </>
  );
}

function Proposals({ sheet }: { readonly sheet: SheetView }): ReactElement | null {
  const { data: proposals = [] } = useProposals(sheet.revisionId);
  if (proposals.length === 0) return null;
  return (
    <>
      <h2 className="mt-3">Next time, from jobs</h2>
      <ul className="findings">
        {proposals.map((proposal) => (
          <li key={proposal.entryId}>
            {proposal.text} <span className="soft">{[proposal.line, proposal.figure].filter(Boolean).join(', ')}</span>{' '}
            <Link to={`/jobs/${proposal.jobId}`}>
              job {proposal.jobNumber}, {proposal.person}
            </Link>
          </li>
        ))}
      </ul>
    </>
  );
}

function Revisions({ sheet }: { readonly sheet: SheetView }): ReactElement | null {
  const { data: revisions = [] } = useRevisions(sheet.revisionId);
  if (revisions.length < 2) return null;
  return (
    <>
      <h2 className="mt-3">Revisions</h2>
      <table className="table">
        <tbody>
          {revisions.map((one) => (
            <tr key={one.revisionId}>
              <td className="fig fs-5">{one.revision}</td>
              <td>
                {one.revisionId === sheet.revisionId ? 'this one' : <Link to={`/sheets/${one.revisionId}`}>{one.status}</Link>}
                <div className="soft">{one.approvedAt ? `${one.approvedBy ?? ''}, ${dayWords(one.approvedAt)}` : 'not approved'}</div>
              </td>
              <td>
                {one.revisionId === sheet.revisionId ? null : (
                  <Link to={`/sheets/${later(sheet, one)}/differences/${earlier(sheet, one)}`}>differences</Link>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}

interface Numbered {
  readonly revisionId: string;
  readonly revision: number;
}

function later(a: Numbered, b: Numbered): string {
  return a.revision > b.revision ? a.revisionId : b.revisionId;
}

function earlier(a: Numbered, b: Numbered): string {
  return a.revision > b.revision ? b.revisionId : a.revisionId;
}

function Identity({ file }: { readonly file: SheetFile }): ReactElement | null {
  const { variants = [], features = [] } = file;
  if (variants.length === 0) return null;
  return (
    <section className="mb-4">
      <h2>Which one is it</h2>
      <div className="table-wide" role="region" aria-label="Variants" tabIndex={0}>
        <table className="table">
          <thead>
            <tr>
              <th scope="col">What to look at</th>
              {variants.map((variant) => (
                <th key={variant.ref} scope="col">
                  {variant.name}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {features.map((feature) => (
              <tr key={feature.ref}>
                <td>
                  {feature.ask} <span className="soft">{feature.how}</span>
                </td>
                {variants.map((variant) => {
                  const tell = variant.tells.find(({ feature: ref }) => ref === feature.ref);
                  return (
                    <td key={variant.ref} className={feature.quantity ? 'fig fs-5' : ''}>
                      {tell ? tellWords(tell) : ''}
                    </td>
                  );
                })}
              </tr>
            ))}
            {variants.some(({ differs }) => differs) ? (
              <tr>
                <td>What is different</td>
                {variants.map((variant) => (
                  <td key={variant.ref}>{variant.differs}</td>
                ))}
              </tr>
            ) : null}
          </tbody>
        </table>
      </div>
      <p className="soft">
        {[file.mass && `Mass ${file.mass}`, file.serialPlace && `Serial: ${file.serialPlace}`].filter(Boolean).join('. ')}
      </p>
    </section>
  );
}

/** "128 ± 1.2 mm": the unit once, where both have the same. */
function tellWords({ is, within }: { readonly is: string; readonly within?: string }): string {
  if (within === undefined) return is;
  const unit = /\s\S+$/u.exec(is)?.[0] ?? '';
  return unit !== '' && within.endsWith(unit) ? `${is.slice(0, -unit.length)} ± ${within}` : `${is} ± ${within}`;
}

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

function Figures({ file }: { readonly file: SheetFile }): ReactElement {
  const { documents } = file;
  return (
    <section className="mb-4">
      <h2>Figures</h2>
      <table className="table">
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
                  {joint.propertyClass ? `, class ${joint.propertyClass}` : ''}
                  {joint.hand === 'left' ? <b className="brass"> left-hand</b> : ''}, {joint.drive}, {joint.condition}
                  {joint.renewEachTime ? ', new each time' : ''}
                  <div className="soft">
                    {joint.stages
                      ? joint.stages.map(stageWords).join(', then ')
                      : `${joint.pattern.passes.map((share) => `${Math.round(share * 100)} %`).join(', ')}${joint.pattern.checkPass ? ', once round' : ''}`}
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
                </>
              }
              figure={`${fastening.count} ×`}
              from={fastening.kind}
            />
          ))}
        </tbody>
      </table>
    </section>
  );
}

function Parts({ file }: { readonly file: SheetFile }): ReactElement {
  return (
    <section className="mb-4">
      <h2>Parts</h2>
      <table className="table">
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
      </table>
    </section>
  );
}

function Work({ file }: { readonly file: SheetFile }): ReactElement {
  return (
    <>
      {STAGES.map((stage) => {
        const steps = stepsOf(file, stage);
        return steps.length === 0 ? null : (
          <section key={stage} className="mb-3">
            <h2>{STAGE_NAMES[stage]}</h2>
            <ol className="work">
              {steps.map((step) => (
                <li key={step.ref}>
                  <StepText step={step} file={file} />
                </li>
              ))}
            </ol>
          </section>
        );
      })}
      {(file.obligations ?? []).length > 0 ? (
        <section className="mb-3">
          <h2>This makes that necessary</h2>
          <ul>
            {(file.obligations ?? []).map((line) => (
              <li key={line.ref}>
                <b>{line.name}.</b> {line.why}
              </li>
            ))}
          </ul>
        </section>
      ) : null}
    </>
  );
}

const MORE = [
  ['why', ''],
  ['expect', 'Expect: '],
  ['stopWhen', 'Stop when: '],
] as const;

function StepText({ step, file }: { readonly step: Step; readonly file: SheetFile }): ReactElement {
  const routing = (file.routings ?? []).find(({ ref }) => ref === step.routing);
  const open = (file.whileOpen ?? []).filter(({ step: ref }) => ref === step.ref);
  const lists = [
    ['It will not come: ', step.ladder],
    ['Leave alone: ', step.leaveAlone],
    ['Wrong: ', step.wrongTools],
    ['Needs: ', step.needs],
  ] as const;
  return (
    <>
      {(step.cautions ?? []).map((ref) => {
        const caution = file.cautions.find((one) => one.ref === ref);
        return caution ? (
          <Care key={ref}>
            {caution.text} {caution.wear ? `Wear: ${caution.wear}.` : ''} {caution.licensed ? <b>{caution.licensed}.</b> : null}
          </Care>
        ) : null;
      })}
      <b>{step.title}.</b> {step.act}{' '}
      <span className="soft">
        {MORE.flatMap(([field, words]) => (step[field] ? [`${words}${step[field]}`] : [])).join(' ')}{' '}
        {lists.flatMap(([words, said]) => (said ? [`${words}${said.join('; ')}.`] : [])).join(' ')}
        {step.wait ? ` Wait ${step.wait.time}: ${step.wait.what}.` : ''}
        {step.holdPoint ? ` Hold: ${step.holdPoint.who} ${step.holdPoint.what}.` : ''}
      </span>
      {step.ways ? (
        <ul className="ways">
          {step.ways.map((way) => (
            <li key={way.ref}>
              <b>{way.name}</b>
              {way.shopDefault ? <span className="trust ms-1">the shop’s</span> : null}
              {way.departs ? <span className="trust ms-1">departs from the maker</span> : null}: {way.reason}{' '}
              <span className="soft">{[way.needs && `Needs ${way.needs}`, way.limits, way.cost].filter(Boolean).join('. ')}</span>
            </li>
          ))}
        </ul>
      ) : null}
      {open.map((line) => (
        <div key={line.ref} className="soft">
          While it is open: {line.work}. {line.why} {line.comeBack ? `To come back: ${line.comeBack}.` : ''}
        </div>
      ))}
      <PinnedPage step={step} file={file} />
      {routing ? <RoutingPicture routing={routing} /> : null}
    </>
  );
}
