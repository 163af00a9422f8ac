/** A fill rule as SVG's attribute takes it. */
export function rule(name: string): 'nonzero' | 'evenodd' {
  return name === 'evenodd' ? 'evenodd' : 'nonzero';
}
