const LANCZOS = [
  0.99999999999980993, 676.5203681218851, -1259.1392167224028, 771.32342877765313, -176.61502916214059, 12.507343278686905,
  -0.13857109526572012, 9.9843695780195716e-6, 1.5056327351493116e-7,
];
const MOST_TERMS = 400;

/** ln Γ(x) for x > 0, Lanczos' approximation (g = 7, nine terms), about 1e-14 relative. */
export function logGamma(x: number): number {
  if (x < 0.5) return Math.log(Math.PI / Math.sin(Math.PI * x)) - logGamma(1 - x);
  const z = x - 1;
  const sum = LANCZOS.slice(1).reduce((total, factor, index) => total + factor / (z + index + 1), LANCZOS[0]!);
  const t = z + 7.5;
  return 0.5 * Math.log(2 * Math.PI) + (z + 0.5) * Math.log(t) - t + Math.log(sum);
}

/**
 * Regularised incomplete beta function I_x(a, b), 0 ≤ x ≤ 1, a and b > 0: the continued fraction
 * of Abramowitz and Stegun, Handbook of Mathematical Functions, 26.5.8, from its converging side.
 */
export function incompleteBeta(x: number, a: number, b: number): number {
  if (x <= 0) return 0;
  if (x >= 1) return 1;
  if (x > (a + 1) / (a + b + 2)) return 1 - incompleteBeta(1 - x, b, a);
  const front = Math.exp(logGamma(a + b) - logGamma(a) - logGamma(b) + a * Math.log(x) + b * Math.log(1 - x)) / a;
  // Lentz' way of taking a continued fraction from the front.
  const tiny = 1e-300;
  let c = 1;
  let d = 1 / guarded(1 - ((a + b) * x) / (a + 1), tiny);
  let fraction = d;
  for (let m = 1; m <= MOST_TERMS; m += 1) {
    let change = 1;
    for (const term of [
      (m * (b - m) * x) / ((a + 2 * m - 1) * (a + 2 * m)),
      (-(a + m) * (a + b + m) * x) / ((a + 2 * m) * (a + 2 * m + 1)),
    ]) {
      d = 1 / guarded(1 + term * d, tiny);
      c = guarded(1 + term / c, tiny);
      change = d * c;
      fraction *= change;
    }
    if (Math.abs(change - 1) < 1e-15) break;
  }
  return front * fraction;
}

function guarded(figure: number, tiny: number): number {
  return Math.abs(figure) < tiny ? tiny : figure;
}

/** Chance that an F ratio with these degrees of freedom is larger than f by accident. */
export function fTail(f: number, between: number, within: number): number {
  return incompleteBeta(within / (within + between * f), within / 2, between / 2);
}

/** The figure that Student's t with `freedom` degrees of freedom stays under with this chance (0.5 to 1). */
export function studentQuantile(chance: number, freedom: number): number {
  const under = (t: number): number => 1 - incompleteBeta(freedom / (freedom + t * t), freedom / 2, 0.5) / 2;
  let low = 0;
  let high = 1;
  while (under(high) < chance) high *= 2;
  for (let step = 0; step < 80; step += 1) {
    const middle = (low + high) / 2;
    if (under(middle) < chance) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}
