import { DndContext, KeyboardSensor, PointerSensor, closestCenter, useSensor, useSensors, type DragEndEvent } from '@dnd-kit/core';
import { SortableContext, arrayMove, sortableKeyboardCoordinates, useSortable, verticalListSortingStrategy } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { STAGE_NAMES, type Step } from '@jubb/contract/job';
import type { CSSProperties, ReactElement } from 'react';

interface StepOrderProps {
  readonly steps: readonly Step[];
  readonly chosen: string | undefined;
  readonly onChoose: (ref: string) => void;
  readonly onOrder: (steps: readonly Step[]) => void;
}

/** Steps in their order: dragged, or moved by Space, arrows, Space. A step takes the stage of its new place. */
export function StepOrder({ steps, chosen, onChoose, onOrder }: StepOrderProps): ReactElement {
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 6 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const drop = ({ active, over }: DragEndEvent): void => {
    if (!over || active.id === over.id) return;
    const from = steps.findIndex(({ ref }) => ref === active.id);
    const to = steps.findIndex(({ ref }) => ref === over.id);
    const stage = steps[to]?.stage;
    const moved = arrayMove([...steps], from, to);
    onOrder(moved.map((step) => (step.ref === active.id && stage ? { ...step, stage } : step)));
  };
  return (
    <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={drop}>
      <SortableContext items={steps.map(({ ref }) => ref)} strategy={verticalListSortingStrategy}>
        <ol className="step-order">
          {steps.map((step, index) => (
            <OneStep
              key={step.ref}
              step={step}
              heading={steps[index - 1]?.stage === step.stage ? undefined : STAGE_NAMES[step.stage]}
              chosen={step.ref === chosen}
              onChoose={() => onChoose(step.ref)}
            />
          ))}
        </ol>
      </SortableContext>
    </DndContext>
  );
}

interface OneStepProps {
  readonly step: Step;
  readonly heading: string | undefined;
  readonly chosen: boolean;
  readonly onChoose: () => void;
}

function OneStep({ step, heading, chosen, onChoose }: OneStepProps): ReactElement {
  const { attributes, listeners, setNodeRef, transform, transition } = useSortable({ id: step.ref });
  const style: CSSProperties = { transform: CSS.Translate.toString(transform), transition };
  return (
    <li ref={setNodeRef} style={style}>
      {heading ? <div className="step-stage">{heading}</div> : null}
      <div className={`step-line ${chosen ? 'on' : ''}`}>
        <button type="button" className="step-handle" {...attributes} {...listeners} aria-label={`Move ${step.title}`}>
          ⠿
        </button>
        <button type="button" className="step-name" aria-pressed={chosen} onClick={onChoose}>
          {step.title}
          <span className="soft"> {step.record.kind}</span>
        </button>
      </div>
    </li>
  );
}
