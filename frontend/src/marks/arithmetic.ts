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
export const CHANGES =
  '+10 adds, +-10 takes away, *2 and /3 change what is there; gap = 3 makes a measure, gap = keeps this as one';

/**
 * The value of what is typed into a field that holds ``now``: what begins with +, * or /
 * changes that; null if it makes no sense.
 */
export function changed(
  typed: string,
  now: number | undefined,
  names: Readonly<Record<string, number>> = {},
): number | null {
  const means = typed.trim().replace('×', '*').replace('÷', '/');
  if (!/^[+*/]/.test(means)) return evaluated(typed, now ?? 1, names);
  return now === undefined ? null : evaluated(`(${now.toFixed(12)})${means}`, now, names);
}

const NAME = /\p{L}[\p{L}\p{N}_]*/u;
const TOKENS = new RegExp(
  `\\d+\\.?\\d*(?:e[+-]?\\d+)?|\\.\\d+(?:e[+-]?\\d+)?|${NAME.source}|[-+*/()°%]|\\S`,
  'giu',
);

/** The names of measures that are used in what is typed, known or not. */
export function namesIn(typed: string): string[] {
  const words = (typed.match(TOKENS) ?? []).filter((token) => /^\p{L}/u.test(token));
  return words.filter((word) => !(word.toLowerCase() in UNITS));
}

/** A measure that is named as it is typed, as ``gap = 3``, or ``gap =`` for what is there. */
export function defined(typed: string): { name: string; text: string } | null {
  const parts = new RegExp(`^\\s*(${NAME.source})\\s*=(.*)$`, 'u').exec(typed);
  return parts && { name: parts[1]!, text: parts[2]!.trim() };
}

/**
 * The value of what is typed, or null if it makes no sense: numbers with . or , as the
 * decimal sign, + − * / and parentheses, and after a number px, mm, cm, in, pt, ° or %.
 * A percentage is of ``whole``; ``names`` stand for numbers too.
 */
export function evaluated(
  typed: string,
  whole = 1,
  names: Readonly<Record<string, number>> = {},
): number | null {
  const tokens = typed
    .replaceAll(',', '.')
    .replaceAll('×', '*')
    .replaceAll('÷', '/')
    .replaceAll('−', '-')
    .match(TOKENS);
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
    } else {
      const token = tokens![at++] ?? '';
      if (Object.hasOwn(names, token)) return names[token]!;
      value = /^[\d.]/.test(token) ? Number(token) : NaN;
    }
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
