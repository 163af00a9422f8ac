// What may be typed into a number field: arithmetic, and lengths in units.

/** CSS 2.1, section 4.3.2: the pixel is 1/96 inch; a plate's unit is the pixel. */
const UNITS: Record<string, number> = {
  px: 1,
  mm: 96 / 25.4,
  cm: 96 / 2.54,
  in: 96,
  pt: 96 / 72,
};

/** How what is there is changed: more, less (a + and a negative number), times, divided by. */
export const CHANGES = '+10 adds, +-10 takes away, *2 and /3 change what is there';

/**
 * The value of what is typed into a field that holds ``now``: what begins with +, * or /
 * changes that; null if it makes no sense.
 */
export function changed(typed: string, now: number | undefined): number | null {
  const means = typed.trim().replace('×', '*').replace('÷', '/');
  if (!/^[+*/]/.test(means)) return evaluated(typed, now ?? 1);
  return now === undefined ? null : evaluated(`(${now.toFixed(12)})${means}`, now);
}

/**
 * The value of what is typed, or null if it makes no sense: numbers with . or , as the
 * decimal sign, + − * / and parentheses, and after a number px, mm, cm, in, pt, ° or %.
 * A percentage is of ``whole``.
 */
export function evaluated(typed: string, whole = 1): number | null {
  const tokens = typed
    .replaceAll(',', '.')
    .replaceAll('×', '*')
    .replaceAll('÷', '/')
    .replaceAll('−', '-')
    .match(/\d+\.?\d*(?:e[+-]?\d+)?|\.\d+(?:e[+-]?\d+)?|[a-z]+|[-+*/()°%]|\S/gi);
  if (!tokens) return null;
  let at = 0;

  function sum(): number {
    let value = product();
    while (tokens![at] === '+' || tokens![at] === '-')
      value += tokens![at++] === '+' ? product() : -product();
    return value;
  }
  function product(): number {
    let value = signed();
    while (tokens![at] === '*' || tokens![at] === '/')
      value = tokens![at++] === '*' ? value * signed() : value / signed();
    return value;
  }
  function signed(): number {
    if (tokens![at] === '-' || tokens![at] === '+')
      return tokens![at++] === '-' ? -signed() : signed();
    return measured();
  }
  function measured(): number {
    let value: number;
    if (tokens![at] === '(') {
      at++;
      value = sum();
      if (tokens![at++] !== ')') return NaN;
    } else value = Number(tokens![at++] ?? NaN);
    const unit = tokens![at]?.toLowerCase();
    if (unit === '°') at++;
    else if (unit === '%') {
      at++;
      value = (value / 100) * whole;
    } else if (unit && unit in UNITS) {
      at++;
      value *= UNITS[unit]!;
    }
    return value;
  }

  const value = sum();
  return at === tokens.length && Number.isFinite(value) ? value : null;
}
