/** The fresh value, of which all parts that equal old ones are the old objects themselves. */
export function shared<T>(old: unknown, fresh: T): T {
  if (Object.is(old, fresh) || !isObject(old) || !isObject(fresh)) return fresh;
  if (Array.isArray(old) !== Array.isArray(fresh)) return fresh;
  const was = old as Record<string, unknown>;
  const is = fresh as Record<string, unknown>;
  const keys = Object.keys(is);
  let same = keys.length === Object.keys(was).length;
  for (const key of keys) {
    is[key] = shared(was[key], is[key]);
    same &&= Object.is(is[key], was[key]);
  }
  return same ? (old as T) : fresh;
}

function isObject(value: unknown): value is object {
  return typeof value === 'object' && value !== null;
}

/** The fresh list, or the old one if the same things are in it. */
export function steady<T>(old: T[] | undefined, fresh: T[]): T[] {
  const same = old?.length === fresh.length && fresh.every((each, i) => Object.is(each, old[i]));
  return same ? old : fresh;
}
