import type { ShapingEntry } from '@jubb/book';
import { reshapes, scopeSheet, type SheetFile, type Step, type Way } from '@jubb/sheet';

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

/** Every task × variant × way that makes something else of the job. */
export function routesOf(file: SheetFile): readonly Route[] {
  const tasks = file.tasks?.length ? file.tasks : [{ ref: '', name: 'Whole unit' }];
  const variants = file.variants?.length ? file.variants : [{ ref: '', name: '' }];
  return tasks.flatMap((task) =>
    variants.flatMap((variant) => {
      const sheet = scopeSheet(file, {
        tasks: task.ref === '' ? [] : [task.ref],
        ...(variant.ref === '' ? {} : { variant: variant.ref }),
      }).file;
      const route = (way: string, begins: readonly ShapingEntry[]): Route => ({
        task: task.ref,
        variant: variant.ref,
        way,
        words: [task.name, variant.name, way].filter(Boolean).join(', '),
        sheet,
        begins,
      });
      return [route('', []), ...otherWays(sheet).map(([step, way]) => route(way.name, [chosen(step, way)]))];
    }),
  );
}

/** Ways other than the shop's own that change the sheet, each once. */
function otherWays({ steps }: SheetFile): readonly (readonly [Step, Way])[] {
  return steps.flatMap((step) => (step.ways ?? []).filter((way) => !way.shopDefault && reshapes(way)).map((way) => [step, way] as const));
}

function chosen(step: Step, { ref, departs }: Way): ShapingEntry {
  const agreed = departs ? { agreed: { foreman: 'the foreman', customer: 'agrees' } } : {};
  return { kind: 'way', step: step.ref, payload: { way: ref, ...agreed } };
}
