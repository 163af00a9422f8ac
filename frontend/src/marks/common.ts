/** What all have, or undefined where they differ. */
export function common<T, V>(all: readonly T[], value: (one: T) => V): V | undefined {
  const [first, ...others] = all.map(value);
  return others.every((other) => same(other, first)) ? first : undefined;
}

function same(one: unknown, two: unknown): boolean {
  if (typeof one === 'number' && typeof two === 'number') return Math.abs(one - two) < 1e-9;
  return JSON.stringify(one) === JSON.stringify(two);
}
