// What marks can be exported as, in words.
import type { ExportChoice, ExportSubject } from '@/api/types';

export type Format = NonNullable<ExportChoice['format']>;

export interface FormatWord {
  format: Format;
  word: string;
  says: string;
}

export const FORMATS: readonly FormatWord[] = [
  { format: 'svg', word: 'SVG', says: 'outlines with true arcs, for screens and other programs' },
  { format: 'png', word: 'PNG', says: 'pixels, at several sizes at once' },
  { format: 'pdf', word: 'PDF', says: 'outlines for print, a page a mark' },
  { format: 'dxf', word: 'DXF', says: 'outlines to be cut, with true arcs, in millimetres' },
  { format: 'ico', word: 'ICO', says: 'one icon file with several sizes' },
  { format: 'site', word: 'Site icons', says: 'all files that a web site wants for its icon' },
  { format: 'sprite', word: 'SVG sprite', says: 'all marks as symbols of one file' },
  { format: 'font', word: 'Icon font', says: 'TTF and WOFF2 with a style sheet, a glyph a mark' },
];

/** Something that can be exported, and how it is called. */
export interface Exportable {
  word: string;
  subject: ExportSubject;
}

/** All that can be chosen; each format takes what it knows. */
export interface Options {
  precision: number;
  layout: 'readable' | 'minimal';
  ids: boolean;
  words: boolean;
  description: string;
  once: boolean;
  oneColour: boolean;
  ground: boolean;
  sizes: string;
  iconSizes: string;
  width: number | null;
  outlined: boolean;
  family: string;
}

export const START: Options = {
  precision: 3,
  layout: 'readable',
  ids: false,
  words: true,
  description: '',
  once: false,
  oneColour: false,
  ground: false,
  sizes: '16, 32, 512',
  iconSizes: '16, 32, 48, 256',
  width: null,
  outlined: false,
  family: 'Marks',
};

/** The whole numbers in a text, or what is wrong with it. */
export function sizesIn(text: string, most: number): number[] | string {
  const words = text.split(/[\s,;]+/).filter(Boolean);
  const sizes = words.map(Number);
  const wrong = words.find((_, i) => !Number.isInteger(sizes[i]) || sizes[i]! < 1);
  if (wrong) return `“${wrong}” is no size in pixels: whole numbers are wanted.`;
  if (!words.length) return 'A size in pixels is wanted.';
  const large = sizes.find((size) => size > most);
  if (large) return `${large} pixels are too many: up to ${most} are possible.`;
  if (sizes.length > 16) return `${sizes.length} sizes are too many: up to 16 are possible.`;
  return sizes;
}

/** What is asked of the server, or what is wrong with what was typed. */
export function choiceOf(format: Format, options: Options): ExportChoice | string {
  const { precision, ground, oneColour: one_colour } = options;
  if (format === 'png') {
    const sizes = sizesIn(options.sizes, 8192);
    return typeof sizes === 'string' ? sizes : { format, sizes, ground };
  }
  if (format === 'ico') {
    const sizes = sizesIn(options.iconSizes, 256);
    return typeof sizes === 'string' ? sizes : { format, sizes, ground };
  }
  switch (format) {
    case 'svg': {
      const { layout, ids, words, description, once } = options;
      return { format, precision, layout, ids, words, description, one_colour, ground, once };
    }
    case 'sprite':
      return { format, precision, one_colour };
    case 'dxf':
      return { format, width: options.width, outlined: options.outlined, tolerance: 0.005 };
    case 'font':
      return options.family.trim()
        ? { format, family: options.family.trim() }
        : 'A name for the font is wanted.';
    default:
      return { format, ground };
  }
}

/** A size in bytes, as people say it. */
export function bytes(size: number): string {
  if (size < 1000) return `${size} bytes`;
  if (size < 1_000_000) return `${(size / 1000).toFixed(1)} kB`;
  return `${(size / 1_000_000).toFixed(1)} MB`;
}
