import { defineStore } from 'pinia';
import { reactive, shallowRef, watch } from 'vue';

import client, { answered } from '@/api/client';
import type { SnapTargets } from '@/api/types';
import { useDrawing } from '@/stores/drawing';
import { latestWins } from '@/stores/latestWins';
import { useSelection } from '@/stores/selection';

/** The kinds of snapping, and how they are named where they are switched. */
export const SNAP_WORDS = {
  centre: 'centres',
  node: 'nodes',
  midpoint: 'midpoints',
  quadrant: 'quadrant points',
  crossing: 'crossings',
  edge: 'edges',
  tangent: 'tangency of circles',
  gap: 'equal gaps',
  plate: 'plate centre and edges',
  guide: 'guides',
  grid: 'grid',
} as const;
export type SnapSwitch = keyof typeof SNAP_WORDS;

/** Many quick steps ask once: what they lead to is snapped to when the hand comes to rest. */
const REST_MS = 120;

/** What is snapped to: switches, the grid, and the key points that the core offers. */
export const useSnaps = defineStore('snaps', () => {
  const drawing = useDrawing();
  const selection = useSelection();
  const on = reactive<Record<SnapSwitch, boolean>>({
    centre: true,
    node: true,
    midpoint: true,
    quadrant: true,
    crossing: true,
    edge: true,
    tangent: true,
    gap: true,
    plate: true,
    guide: true,
    grid: false,
  });
  const all = shallowRef(true);
  const grid = shallowRef(8);
  const targets = shallowRef<SnapTargets | null>(null);

  const asked = latestWins(
    ({ plate, revision }: { plate: string; revision: number }) =>
      answered<SnapTargets>(
        client.POST('/api/drawings/{drawing_id}/snaps', {
          params: { path: { drawing_id: drawing.id } },
          body: { plate, revision },
        }),
      ),
    (found) => (targets.value = found),
    { restMs: REST_MS },
  );

  watch(
    [() => drawing.id, () => drawing.revision, () => selection.plate],
    ([id, revision, plate]) => {
      targets.value = null;
      if (id && plate && drawing.heads[plate]) asked.ask({ plate, revision });
    },
    { immediate: true },
  );

  return { on, all, grid, targets };
});
