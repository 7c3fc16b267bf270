import { STAGES, STAGE_NAMES, stepsOf, type SheetFile, type Step } from '@jubb/sheet';
import type { ReactElement } from 'react';
import { RoutingPicture } from '../drawings/routing.tsx';
import { Care } from '../kit/pieces.tsx';
import { PinnedPage } from '../kit/pinned-page.tsx';
import { ReshapingLines } from './reshaping-lines.tsx';

export function Work({ file }: { readonly file: SheetFile }): ReactElement {
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

function lineNameOf({ fastenings = [] }: SheetFile, ref: string): string {
  return fastenings.find((one) => one.ref === ref)?.name ?? ref;
}

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
        {step.only ? ` Only ${step.only}.` : ''}
        {step.shows ? ` Which one it is, is asked here: ${step.shows.map((ref) => ref.replaceAll('-', ' ')).join(', ')}.` : ''}
        {step.lead ? ` Ready before: ${step.lead.what}, ${step.lead.time}${step.lead.most ? `, ${step.lead.most} at most` : ''}.` : ''}
        {step.coat ? ` Coat: ${step.coat.what}, thinned with ${step.coat.thinned}; masked: ${step.coat.masked.join(', ')}.` : ''}
        {step.seats ? ` Seen home: ${step.seats.map((ref) => lineNameOf(file, ref)).join(', ')}.` : ''}
        {step.wait ? ` Wait ${step.wait.time}: ${step.wait.what}${step.wait.hot ? ', hot' : ''}.` : ''}
        {step.holdPoint ? ` Hold: ${step.holdPoint.who} ${step.holdPoint.what}.` : ''}
      </span>
      {step.ways ? (
        <ul className="ways">
          {step.ways.map((way) => (
            <li key={way.ref}>
              <b>{way.name}</b>
              {way.shopDefault ? <span className="trust ms-1">the shop’s</span> : null}
              {way.departs ? <span className="trust ms-1">departs from the maker</span> : null}
              {way.stays ? <span className="trust ms-1">stays on the unit</span> : null}: {way.reason}{' '}
              <span className="soft">{[way.needs && `Needs ${way.needs}`, way.limits, way.cost].filter(Boolean).join('. ')}</span>
              <ReshapingLines file={file} of={way} />
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
