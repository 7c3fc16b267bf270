const EPSILON = 1e-9;
/** After so many steps the rule that cannot go round in circles takes over. */
const GREEDY_STEPS = 2000;
const MOST_STEPS = 20_000;

export interface LinearOptimum {
  readonly best: number;
  readonly x: readonly number[];
  /** What one more of each row's bound would add to the best: the solution of the dual. */
  readonly dual: readonly number[];
}

/**
 * The largest c·x with A·x ≤ b and x ≥ 0, for b ≥ 0; undefined when it has no end.
 *
 * Dantzig's simplex method on a condensed tableau, in which a slack takes the place of the
 * variable that enters; Bland's rule when the steepest choice does not end.
 */
export function maximise(c: readonly number[], a: readonly (readonly number[])[], b: readonly number[]): LinearOptimum | undefined {
  const rows = a.length;
  const columns = c.length;
  const tableau = a.map((row, index) => Float64Array.from([...row, b[index]!]));
  tableau.push(Float64Array.from([...c.map((gain) => -gain), 0]));
  // Variables are 0 to columns − 1, slacks after them.
  const basic = Array.from({ length: rows }, (_, row) => columns + row);
  const free = Array.from({ length: columns }, (_, column) => column);
  for (let step = 0; step < MOST_STEPS; step += 1) {
    const enters = entering(tableau[rows]!, free, step > GREEDY_STEPS);
    if (enters === -1) break;
    const leaves = leaving(tableau, basic, enters);
    if (leaves === -1) return undefined;
    pivot(tableau, leaves, enters);
    const left = basic[leaves]!;
    basic[leaves] = free[enters]!;
    free[enters] = left;
  }
  const x = new Array<number>(columns).fill(0);
  basic.forEach((variable, row) => {
    if (variable < columns) x[variable] = tableau[row]![columns]!;
  });
  const dual = new Array<number>(rows).fill(0);
  free.forEach((variable, column) => {
    if (variable >= columns) dual[variable - columns] = tableau[rows]![column]!;
  });
  return { best: tableau[rows]![columns]!, x, dual };
}

function entering(goal: Float64Array, free: readonly number[], careful: boolean): number {
  let chosen = -1;
  for (let column = 0; column < free.length; column += 1) {
    if (goal[column]! >= -EPSILON) continue;
    if (chosen === -1 || (careful ? free[column]! < free[chosen]! : goal[column]! < goal[chosen]!)) chosen = column;
  }
  return chosen;
}

function leaving(tableau: readonly Float64Array[], basic: readonly number[], enters: number): number {
  let chosen = -1;
  let least = Number.POSITIVE_INFINITY;
  for (let row = 0; row < basic.length; row += 1) {
    const line = tableau[row]!;
    const factor = line[enters]!;
    if (factor <= EPSILON) continue;
    const reach = line[line.length - 1]! / factor;
    if (reach < least - EPSILON || (reach < least + EPSILON && chosen !== -1 && basic[row]! < basic[chosen]!)) {
      least = Math.min(least, reach);
      chosen = row;
    }
  }
  return chosen;
}

function pivot(tableau: readonly Float64Array[], leaves: number, enters: number): void {
  const line = tableau[leaves]!;
  const by = line[enters]!;
  line[enters] = 1;
  // Most of a line is nothing at first: only what is something is carried into the others.
  const some: number[] = [];
  for (let column = 0; column < line.length; column += 1) {
    if (line[column] === 0) continue;
    line[column]! /= by;
    some.push(column);
  }
  for (const other of tableau) {
    const factor = other[enters]!;
    if (other === line || factor === 0) continue;
    other[enters] = 0;
    for (const column of some) other[column]! -= factor * line[column]!;
  }
}
