export function median(figures) {
  return share(figures, 0.5);
}

/** The figure that a share of them does not exceed: 0.95 for the slowest but five of a hundred. */
export function share(figures, part) {
  return figures.toSorted((a, b) => a - b)[Math.min(figures.length - 1, Math.floor(figures.length * part))];
}
