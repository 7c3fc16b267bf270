import type { ShapingEntry } from '@jubb/book';
import { JOB_PLACES, reshapes, scopeSheet, type SheetFile, type Step, type Way } from '@jubb/sheet';

/** One way through a sheet: a task in a variant, by the shop's own ways or by one other. */
export interface Route {
  readonly task: string;
  readonly variant: string;
  readonly way: string;
  /** "Whole axle, D44 3.727, pressed on". */
  readonly words: string;
  /** The sheet as such a job has it. */
  readonly sheet: SheetFile;
  /** What is chosen before anything is done. */
  readonly begins: readonly ShapingEntry[];
}

/** Every task × variant × way, in place and on the bench where that is not the same, that makes something else of the job. */
export function routesOf(file: SheetFile): readonly Route[] {
  const tasks = file.tasks?.length ? file.tasks : [{ ref: '', name: 'Whole unit' }];
  const variants = file.variants?.length ? file.variants : [{ ref: '', name: '' }];
  const places = file.steps.some(({ only }) => only) ? JOB_PLACES : [JOB_PLACES[0]];
  const routes = (task: (typeof tasks)[number], variant: (typeof variants)[number]): readonly Route[] =>
    places.flatMap((place) => {
      const sheet = scopeSheet(file, {
        tasks: task.ref === '' ? [] : [task.ref],
        ...(variant.ref === '' ? {} : { variant: variant.ref }),
        place,
      }).file;
      const route = (way: string, begins: readonly ShapingEntry[]): Route => ({
        task: task.ref,
        variant: variant.ref,
        way,
        words: [task.name, variant.name, places.length > 1 ? place : '', way].filter(Boolean).join(', '),
        sheet,
        begins,
      });
      return [route('', []), ...otherWays(sheet).map(([step, way]) => route(way.name, [chosen(step, way)]))];
    });
  return tasks.flatMap((task) => variants.flatMap((variant) => routes(task, variant)));
}

/** Ways other than the shop's own that change the sheet, each once. */
function otherWays({ steps }: SheetFile): readonly (readonly [Step, Way])[] {
  return steps.flatMap((step) => (step.ways ?? []).filter((way) => !way.shopDefault && reshapes(way)).map((way) => [step, way] as const));
}

function chosen(step: Step, { ref, departs }: Way): ShapingEntry {
  const agreed = departs ? { agreed: { foreman: 'the foreman', customer: 'agrees' } } : {};
  return { kind: 'way', step: step.ref, payload: { way: ref, ...agreed } };
}
