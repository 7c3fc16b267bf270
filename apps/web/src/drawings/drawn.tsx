import { baseUnit, type Drawing } from '@jubb/core';
import type { ReactElement } from 'react';
import { Bridge } from './bridge.tsx';
import { CastleNut } from './castle-nut.tsx';
import { Chart } from './chart.tsx';
import { Contact } from './contact.tsx';
import { Face } from './face.tsx';
import { Fit } from './fit.tsx';
import { Flat } from './flat.tsx';
import { Gland } from './gland.tsx';
import { JointPlate } from './joint-plate.tsx';
import { LimitStrip } from './limit-strip.tsx';
import { Marks } from './marks.tsx';
import { Pack } from './pack.tsx';
import { Round } from './round.tsx';
import { SealSection } from './seal-section.tsx';
import { SettingLine } from './setting-line.tsx';
import { Stack } from './stack.tsx';
import { Tornado } from './tornado.tsx';
import { TrueSize } from './true-size.tsx';

/** Any drawing that a working makes. */
export function Drawn({ drawing, name }: { readonly drawing: Drawing; readonly name: string }): ReactElement {
  switch (drawing.kind) {
    case 'chart':
      return (
        <div className="drawing mb-3" style={{ maxWidth: 520 }}>
          <Chart name={name} {...drawing} />
        </div>
      );
    case 'round':
      return (
        <div className="drawing mb-3" style={{ maxWidth: 340 }}>
          <Round name={name} {...drawing} />
        </div>
      );
    case 'face':
      return (
        <div className="drawing mb-3" style={{ maxWidth: 480 }}>
          <Face name={name} points={drawing.points} />
        </div>
      );
    case 'bridge':
      return (
        <div className="drawing mb-3" style={{ maxWidth: 420 }}>
          <Bridge name={name} diodes={drawing.diodes} />
        </div>
      );
    case 'tornado':
      return (
        <div className="drawing mb-3" style={{ maxWidth: 600 }}>
          <Tornado name={name} {...drawing} />
        </div>
      );
    case 'pack':
      return (
        <div className="drawing mb-3" style={{ maxWidth: 480 }}>
          <Pack name={name} layers={drawing.layers} wanted={drawing.wanted} />
        </div>
      );
    case 'contact':
      return (
        <div className="drawing mb-3" style={{ maxWidth: 520 }}>
          <Contact name={name} drive={drawing.drive} coast={drawing.coast} />
        </div>
      );
    case 'gland':
      return (
        <div className="drawing mb-3" style={{ maxWidth: 440 }}>
          <Gland name={name} {...drawing} />
        </div>
      );
    case 'seal-section':
      return (
        <div className="drawing mb-3" style={{ maxWidth: 480 }}>
          <SealSection name={name} {...drawing} />
        </div>
      );
    case 'flat':
      return (
        <>
          <div className="drawing mb-3" style={{ maxWidth: 480 }}>
            <Flat name={name} {...drawing} />
          </div>
          <TrueSize drawing={drawing} name={name} />
        </>
      );
    case 'marks':
      return (
        <>
          <div className="drawing mb-3" style={{ maxWidth: 300 }}>
            <Marks name={name} {...drawing} />
          </div>
          <TrueSize drawing={drawing} name={name} />
        </>
      );
    case 'stack':
      return (
        <div className="drawing mb-3" style={{ maxWidth: 520 }}>
          <Stack name={name} rings={drawing.rings} />
        </div>
      );
    case 'fit':
      return (
        <div className="drawing mb-3" style={{ maxWidth: 420 }}>
          <Fit name={name} bars={drawing.bars} />
        </div>
      );
    case 'limit-strip':
      return (
        <div className="drawing mb-3" style={{ maxWidth: 480 }}>
          <LimitStrip
            name={name}
            readings={drawing.readings}
            from={drawing.from}
            to={drawing.to}
            guard={drawing.guard}
            verdict={drawing.verdict}
            unit={baseUnit(drawing.quantity).symbol}
          />
        </div>
      );
    case 'joint-plate': {
      const numbers = drawing.points.map((_, place) => drawing.order.indexOf(place + 1) + 1);
      return (
        <div className="drawing mb-3" style={{ maxWidth: 400 }}>
          <JointPlate
            name={name}
            points={drawing.points}
            numbers={numbers}
            done={new Set()}
            round={drawing.points.every((point) => Math.abs(Math.hypot(point.x, point.y) - 1) < 0.01)}
          />
        </div>
      );
    }
    case 'setting-line':
      return (
        <div className="d-flex flex-wrap gap-3 mb-3 drawing">
          <div style={{ flex: '1 1 360px', maxWidth: 480 }}>
            <SettingLine
              name={name}
              from={drawing.from}
              to={drawing.to}
              tries={[drawing.now]}
              after={drawing.after}
              angle={drawing.angle}
            />
          </div>
          <div style={{ width: 200 }}>
            <CastleNut slots={drawing.slots} openings={drawing.openings} angle={drawing.angle} />
          </div>
        </div>
      );
  }
}
