import { computed, onMounted, ref, shallowReactive, shallowRef } from 'vue';
import { useRouter } from 'vue-router';

import client, { answered } from '@/api/client';
import type { DrawingHistory, DrawingState, HistoryState, PlatePicture } from '@/api/types';
import { attempt } from '@/stores/attempt';
import { useDrawing } from '@/stores/drawing';
import { useSelection } from '@/stores/selection';

/** The states that the open drawing was in, with their pictures as they are wanted. */
export function useHistory() {
  const drawing = useDrawing();
  const selection = useSelection();
  const router = useRouter();
  const history = shallowRef<DrawingHistory | null>(null);
  const chosen = ref('');
  const pictures = shallowReactive(new Map<string, PlatePicture>());
  const asked = new Set<string>();
  const path = () => ({ drawing_id: drawing.id });

  /** In the order in which they are shown: those with a name, then all steps, the last first. */
  const states = computed<HistoryState[]>(() => [
    ...[...(history.value?.versions ?? [])].reverse(),
    ...[...(history.value?.steps ?? [])].reverse(),
  ]);
  const current = computed(() => states.value.find((state) => state.id === chosen.value));

  async function load(): Promise<void> {
    history.value = await attempt(() =>
      answered<DrawingHistory>(
        client.GET('/api/drawings/{drawing_id}/history', { params: { path: path() } }),
      ),
    );
    if (!current.value) chosen.value = String(history.value?.position ?? '');
  }

  /** Fetches the picture of a state, once. */
  async function wantPicture(state: string): Promise<void> {
    if (asked.has(state)) return;
    asked.add(state);
    const picture = await attempt(() =>
      answered<PlatePicture>(
        client.GET('/api/drawings/{drawing_id}/states/{state}', {
          params: { path: { ...path(), state }, query: { plate: selection.plate } },
        }),
      ),
    );
    if (picture) pictures.set(state, picture);
  }

  async function name(state: string, to: string): Promise<void> {
    const named = await attempt(() =>
      answered<HistoryState>(
        client.POST('/api/drawings/{drawing_id}/versions', {
          params: { path: path() },
          body: { state, name: to },
        }),
      ),
    );
    if (named) chosen.value = named.id;
    await load();
  }

  async function forget(state: string): Promise<void> {
    await attempt(() =>
      answered(
        client.DELETE('/api/drawings/{drawing_id}/versions/{state}', {
          params: { path: { ...path(), state } },
        }),
      ),
    );
    await load();
  }

  async function goBack(state: string): Promise<boolean> {
    const done = await drawing.goBack(state);
    if (done && !drawing.plates.includes(selection.plate)) selection.plate = drawing.plates[0]!;
    selection.pick();
    return done;
  }

  async function duplicate(state: HistoryState): Promise<void> {
    const copy = `${drawing.name}: ${state.label}`.slice(0, 120);
    const made = await attempt(() =>
      answered<DrawingState>(
        client.POST('/api/drawings/{drawing_id}/copy', {
          params: { path: path() },
          body: { name: copy, state: state.id },
        }),
      ),
    );
    if (made) await router.push(`/drawing/${made.id}`);
  }

  onMounted(load);
  return {
    history,
    states,
    chosen,
    current,
    pictures,
    wantPicture,
    name,
    forget,
    goBack,
    duplicate,
  };
}
