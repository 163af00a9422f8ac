// What things are brought on one line by.

/** An icon each: a line, and two bars that lie on it. */
export const EDGES = [
  { edge: 'left', word: 'Align left', icon: 'M4 3v18M7 7h12M7 15h7' },
  { edge: 'centre', word: 'Align centres', icon: 'M12 3v18M5 7h14M8 15h8' },
  { edge: 'right', word: 'Align right', icon: 'M20 3v18M5 7h12M10 15h7' },
  { edge: 'top', word: 'Align top', icon: 'M3 4h18M7 7v12M15 7v7' },
  { edge: 'middle', word: 'Align middles', icon: 'M3 12h18M7 5v14M15 8v8' },
  { edge: 'bottom', word: 'Align bottom', icon: 'M3 20h18M7 5v12M15 10v7' },
] as const;

export type Edge = (typeof EDGES)[number]['edge'];
