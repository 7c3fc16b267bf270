import { labourMinor, bookHours, type PartFirstLine } from '@jubb/book';
import { JOB_PLACES, reshaped, scopeSheet, type JobScope, type PartFirst, type SheetFile, type Task } from '@jubb/sheet';
import type { ReactElement } from 'react';
import Table from 'react-bootstrap/Table';
import FormSelect from 'react-bootstrap/FormSelect';
import { percentWords } from '../../kit/money.ts';
import { Tick } from '../../kit/tick.tsx';

interface ScopePickProps {
  readonly file: SheetFile;
  readonly scope: JobScope;
  readonly onScope: (scope: JobScope) => void;
}

/** Which tasks, which sides, where: and what that leaves shut. */
export function ScopePick({ file, scope, onScope }: ScopePickProps): ReactElement {
  const { tasks = [], sides = [] } = file;
  const scoped = scopeSheet(file, scope);
  // The whole unit takes the narrower tasks in: one or the other is picked.
  const pickTask = (task: Task): void => {
    const others = tasks.filter(({ ref, whole }) => scope.tasks.includes(ref) && whole === task.whole).map(({ ref }) => ref);
    onScope({ ...scope, tasks: scope.tasks.includes(task.ref) ? scope.tasks.filter((ref) => ref !== task.ref) : [...others, task.ref] });
  };
  const toggle = (list: readonly string[], one: string): string[] =>
    list.includes(one) ? list.filter((other) => other !== one) : [...list, one];
  return (
    <>
      <div className="picks" role="group" aria-label="What is to be done">
        {tasks.map((task) => (
          <Tick key={task.ref} className="pick" checked={scope.tasks.includes(task.ref)} onChange={() => pickTask(task)}>
            {task.name} <span className="soft">{task.time}</span>
          </Tick>
        ))}
      </div>
      {sides.length > 0 ? (
        <div className="picks" role="group" aria-label="Sides">
          {sides.map((side) => (
            <Tick
              key={side}
              className="pick"
              checked={scope.sides.includes(side)}
              onChange={() => onScope({ ...scope, sides: toggle(scope.sides, side) })}
            >
              {side}
            </Tick>
          ))}
        </div>
      ) : null}
      <div className="picks" role="radiogroup" aria-label="Where">
        {JOB_PLACES.map((place) => (
          <Tick
            key={place}
            type="radio"
            className="pick"
            name="place"
            checked={scope.place === place}
            onChange={() => onScope({ ...scope, place })}
          >
            {place}
          </Tick>
        ))}
      </div>
      <p className="soft mb-0">
        {reshaped(scoped.file, { variant: scope.variant }).steps.length} steps.
        {scoped.notOpened.length > 0 ? ` Not opened: ${scoped.notOpened.map(({ name }) => name).join(', ')}.` : ''}
        {scope.sides.length > 1 ? ` ${scope.sides.join(' and ')} side by side.` : ''}
      </p>
    </>
  );
}

/** What waiting for a part would lose. */
function lostBy({ part, when }: PartFirstLine): string {
  if (when === 'known when open') return `look for ${part.knownWhenOpen}`;
  return when === 'sure' ? 'without it the unit lies open' : 'ordered when it is found, it costs the days it takes';
}

interface PartsFirstProps {
  readonly lines: readonly PartFirstLine[];
  readonly chosen: readonly PartFirst[];
  readonly onChoose: (chosen: PartFirst[]) => void;
}

const HOW_WORDS = { wait: 'wait', reserve: 'reserve', order: 'order' } as const;

export function PartsFirst({ lines, chosen, onChoose }: PartsFirstProps): ReactElement {
  if (lines.length === 0) return <p className="soft">Nothing is renewed every time on what was picked.</p>;
  const how = (ref: string): PartFirst['how'] => chosen.find(({ part }) => part === ref)?.how ?? 'wait';
  return (
    <Table>
      <thead>
        <tr>
          <th scope="col">Part</th>
          <th scope="col">Number</th>
          <th scope="col">When it is known</th>
          <th scope="col">Before the first screw</th>
        </tr>
      </thead>
      <tbody>
        {lines.map(({ part, when, chance }) => (
          <tr key={part.ref}>
            <td>
              <span className="fig">{part.quantity} ×</span> {part.name}
            </td>
            <td className="fig">{part.number ?? ''}</td>
            <td>
              {when}
              {chance === undefined ? '' : `, ${percentWords(chance)}`}
              <div className="soft">{lostBy({ part, when })}</div>
            </td>
            <td>
              <FormSelect
                aria-label={`${part.name}: before the first screw`}
                value={how(part.ref)}
                onChange={(event) =>
                  onChoose([
                    ...chosen.filter(({ part: ref }) => ref !== part.ref),
                    ...(event.target.value === 'wait' ? [] : [{ part: part.ref, how: event.target.value as PartFirst['how'] }]),
                  ])
                }
              >
                {Object.entries(HOW_WORDS).map(([key, words]) => (
                  <option key={key} value={key}>
                    {words}
                  </option>
                ))}
              </FormSelect>
            </td>
          </tr>
        ))}
      </tbody>
    </Table>
  );
}

export interface FirstEstimate {
  readonly minor: number;
  readonly from: string;
}

/** Book time of what was picked, for each side, at the shop's hour. */
export function firstEstimate(
  file: SheetFile,
  scope: JobScope,
  hourlyMinor: number,
  money: (minor: number) => string,
): FirstEstimate | undefined {
  const hours = bookHours(file, scope);
  if (hours === undefined || scope.tasks.length === 0) return undefined;
  const sides = scope.sides.length;
  return {
    minor: labourMinor(hours, hourlyMinor),
    from: `${hours.toFixed(1)} h of book time${sides > 1 ? ` for ${sides} sides` : ''} at ${money(hourlyMinor)} an hour; parts not counted`,
  };
}
