import { defineStore } from 'pinia';
import { computed, shallowRef } from 'vue';

import { bytes } from '@/api/bytes';
import client, { answered } from '@/api/client';
import type { FontEntry } from '@/api/types';
import type { Manner } from '@/marks/shapes';
import { attempt } from '@/stores/attempt';
import { useDrawing } from '@/stores/drawing';

/** A style of a family: which font it is of, at which places on its axes. */
export interface Style {
  name: string;
  font: FontEntry;
  axes: Record<string, number>;
}

export interface Family {
  name: string;
  /** Its name drawn in itself, and how wide that is for capitals 1 high. */
  sample: string;
  reach: number;
  styles: Style[];
}

const PLAIN = 'Regular';

const LATEST = 'dotstack letters';
const FIRST = { family: 'Inter Variable', style: 'Bold' };

/** The fonts at hand, and how the next words are set. */
export const useFonts = defineStore('fonts', () => {
  const drawing = useDrawing();
  const fonts = shallowRef<readonly FontEntry[]>([]);
  let latest = JSON.parse(localStorage.getItem(LATEST) ?? 'null') as Manner | null;
  let asked: Promise<unknown> | null = null;

  /** Asks for the list, once. */
  function load(): Promise<unknown> {
    asked ??= attempt(() => answered<{ fonts: FontEntry[] }>(client.GET('/api/fonts'))).then(
      (found) => {
        fonts.value = found?.fonts ?? [];
        if (!found) asked = null;
      },
    );
    return asked;
  }

  const byDigest = computed(() => new Map(fonts.value.map((font) => [font.digest, font])));
  const families = computed<Family[]>(() => {
    const found = new Map<string, Family>();
    for (const font of fonts.value) {
      const { family, sample, reach } = font;
      const into = found.get(family) ?? { name: family, sample: '', reach: 0, styles: [] };
      if (sample !== null) Object.assign(into, { sample, reach });
      into.styles.push(...font.styles.map(({ name, axes }) => ({ name, font, axes })));
      found.set(family, into);
    }
    return [...found.values()].sort((one, two) => one.name.localeCompare(two.name));
  });

  function styleOf(family: string, name: string): Style | undefined {
    const styles = families.value.find((each) => each.name === family)?.styles ?? [];
    return (
      styles.find((each) => each.name === name) ??
      styles.find((each) => each.name === PLAIN) ??
      styles[0]
    );
  }

  /** How new words are set on a plate of this size: as the last ones, or else plainly. */
  async function manner(plate: { width: number; height: number }): Promise<Manner | null> {
    await load();
    const side = Math.min(plate.width, plate.height);
    const usual = Math.max(1, Math.round(side / 8));
    const { font, axes, measure = 'cap-height', size = usual } = latest ?? {};
    if (font && byDigest.value.has(font.digest))
      return { font, axes, measure, size: size < side ? size : usual };
    const style = styleOf(FIRST.family, FIRST.style);
    if (!style) return null;
    const { digest, family } = style.font;
    return { font: { digest, family, style: style.name }, axes: style.axes, measure, size };
  }

  /** Words that follow are set as these. */
  function remember(text: Manner): void {
    const { font, axes, measure, size } = text;
    latest = { font, axes, measure, size };
    localStorage.setItem(LATEST, JSON.stringify(latest));
  }

  /** Adds a font file; answers its font, or null where it was refused and said why. */
  async function add(file: File): Promise<FontEntry | null> {
    const found = await attempt(
      () => answered<FontEntry>(client.POST('/api/fonts', bytes(file, 'font/sfnt'))),
      file.name,
    );
    if (!found) return null;
    if (!byDigest.value.has(found.digest)) fonts.value = [...fonts.value, found];
    // Texts that missed it are shown in it from now on.
    await drawing.reopen();
    return found;
  }

  return { byDigest, families, load, styleOf, manner, remember, add };
});
