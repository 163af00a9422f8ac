/** The colours of Marram Quay's signs. */
export const SWATCHES = [
  { name: 'ink', fill: '#22303C' },
  { name: 'clay', fill: '#B8452E' },
  { name: 'moss', fill: '#3F7355' },
  { name: 'tide', fill: '#1D6A83' },
  { name: 'mustard', fill: '#C98A1B' },
  { name: 'card', fill: '#FBF7EF' },
] as const;
