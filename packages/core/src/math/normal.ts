/**
 * The normal distribution function Φ(z), to about 1e-14 absolute.
 * Near zero the Maclaurin series of erf, further out the continued fraction of erfc
 * (Abramowitz and Stegun, Handbook of Mathematical Functions, 7.1.5 and 7.1.14).
 */
export function normalCdf(z: number): number {
  const x = Math.abs(z) / Math.SQRT2;
  const tail = x < 2.5 ? (1 - erfSeries(x)) / 2 : erfcFraction(x) / 2;
  return z < 0 ? tail : 1 - tail;
}

function erfSeries(x: number): number {
  let term = x;
  let sum = x;
  for (let n = 1; Math.abs(term) > 1e-17 * Math.abs(sum); n += 1) {
    term *= (-x * x) / n;
    sum += term / (2 * n + 1);
  }
  return (2 / Math.sqrt(Math.PI)) * sum;
}

function erfcFraction(x: number): number {
  let fraction = 0;
  for (let n = 60; n >= 1; n -= 1) fraction = n / 2 / (x + fraction);
  return Math.exp(-x * x) / (Math.sqrt(Math.PI) * (x + fraction));
}
