/** Holds it in the map as the last one used; what was used longest ago makes room where there are more than `most`. */
export function remember<T>(map: Map<string, T>, key: string, held: T, most: number): void {
  map.delete(key);
  map.set(key, held);
  if (map.size > most) map.delete(map.keys().next().value ?? '');
}
