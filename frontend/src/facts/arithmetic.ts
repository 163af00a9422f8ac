// What may be typed into a number field: arithmetic, and lengths in units.

/** CSS 2.1, section 4.3.2: the pixel is 1/96 inch; a plate's unit is the pixel. */
const UNITS: Record<string, number> = {
  px: 1,
  mm: 96 / 25.4,
  cm: 96 / 2.54,
  in: 96,
  pt: 96 / 72,
};

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
