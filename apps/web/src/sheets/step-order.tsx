import { STAGE_NAMES, type Step } from '@jubb/sheet';
import { DndContext, PointerSensor, closestCenter, useSensor, useSensors, type DragEndEvent } from '@dnd-kit/core';
import { SortableContext, arrayMove, useSortable, verticalListSortingStrategy } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { useState, type CSSProperties, type ReactElement } from 'react';

interface StepOrderProps {
  readonly steps: readonly Step[];
  readonly chosen: string | undefined;
  readonly onChoose: (ref: string) => void;
  readonly onOrder: (steps: readonly Step[]) => void;
}

/** Steps in their order: dragged, or moved by the arrow keys on their handle. A step takes the stage of its new place. */
export function StepOrder({ steps, chosen, onChoose, onOrder }: StepOrderProps): ReactElement {
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 6 } }));
  const [said, setSaid] = useState('');
  const move = (ref: string, to: number): void => {
    const from = steps.findIndex((step) => step.ref === ref);
    const target = steps[to];
    if (!target || from === to) return;
    const moved = arrayMove([...steps], from, to).map((step) => (step.ref === ref ? { ...step, stage: target.stage } : step));
    setSaid(`${steps[from]?.title ?? ''}: now ${to + 1} of ${steps.length}, ${STAGE_NAMES[target.stage]}`);
    onOrder(moved);
  };
  const drop = ({ active, over }: DragEndEvent): void => {
    if (over)
      move(
        String(active.id),
        steps.findIndex(({ ref }) => ref === over.id),
      );
  };
  return (
    <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={drop}>
      <SortableContext items={steps.map(({ ref }) => ref)} strategy={verticalListSortingStrategy}>
        <ol className="step-order">
          {steps.map((step, index) => (
            <OneStep
              key={step.ref}
              step={step}
              heading={steps[index - 1]?.stage === step.stage ? undefined : (STAGE_NAMES[step.stage] ?? 'No stage yet')}
              chosen={step.ref === chosen}
              onChoose={() => onChoose(step.ref)}
              onMove={(by) => move(step.ref, index + by)}
            />
          ))}
        </ol>
      </SortableContext>
      <p className="visually-hidden" role="status">
        {said}
      </p>
    </DndContext>
  );
}

/** A step of a draft may say nothing yet of what it records. */
function kindOf(step: Partial<Step>): string {
  return step.record?.kind ?? 'records nothing yet';
}

interface OneStepProps {
  readonly step: Step;
  readonly heading: string | undefined;
  readonly chosen: boolean;
  readonly onChoose: () => void;
  readonly onMove: (by: 1 | -1) => void;
}

function OneStep({ step, heading, chosen, onChoose, onMove }: OneStepProps): ReactElement {
  const { attributes, listeners, setNodeRef, transform, transition } = useSortable({ id: step.ref });
  const style: CSSProperties = { transform: CSS.Translate.toString(transform), transition };
  return (
    <li ref={setNodeRef} style={style}>
      {heading ? <div className="step-stage">{heading}</div> : null}
      <div className={`step-line ${chosen ? 'on' : ''}`}>
        <button
          type="button"
          className="step-handle"
          {...attributes}
          {...listeners}
          aria-label={`Move ${step.title}`}
          onKeyDown={(event) => {
            const by = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : undefined;
            if (by === undefined) return;
            event.preventDefault();
            onMove(by);
          }}
        >
          ⠿
        </button>
        <button type="button" className="step-name" aria-pressed={chosen} onClick={onChoose}>
          {step.title || step.ref}
          <span className="soft"> {kindOf(step)}</span>
        </button>
      </div>
    </li>
  );
}
