<script setup lang="ts">
import { computed, nextTick, ref, watch } from 'vue';

import { useFonts } from '@/stores/fonts';

/** All families, each drawn in itself, searched as one types; own files can be added. */
defineProps<{ chosen: string | undefined; label: string }>();
const emit = defineEmits<{ choose: [family: string] }>();

const fonts = useFonts();
const open = ref(false);
const sought = ref('');
const search = ref<HTMLInputElement>();
const chooser = ref<HTMLInputElement>();

const found = computed(() => {
  const words = sought.value.toLowerCase().split(/\s+/);
  return fonts.families.filter(({ name }) =>
    words.every((word) => name.toLowerCase().includes(word)),
  );
});
watch(open, async (is) => {
  if (!is) return;
  sought.value = '';
  await fonts.load();
  await nextTick();
  search.value?.focus();
});

function choose(family: string | undefined): void {
  if (!family) return;
  emit('choose', family);
  open.value = false;
}

async function add(event: Event): Promise<void> {
  const files = [...((event.target as HTMLInputElement).files ?? [])];
  let last: string | undefined;
  for (const file of files) last = (await fonts.add(file))?.family ?? last;
  choose(last);
}
</script>

<template>
  <v-menu v-model="open" :close-on-content-click="false">
    <template #activator="{ props: activator }">
      <button
        v-bind="activator"
        class="chosen"
        :aria-label="label"
        :title="`${label}: ${chosen ?? 'several'}`"
      >
        {{ chosen ?? 'several' }}
      </button>
    </template>
    <div class="fonts">
      <input
        ref="search"
        v-model="sought"
        type="search"
        placeholder="Search fonts"
        aria-label="Search fonts"
        @keydown.enter="choose(found[0]?.name)"
      />
      <ul aria-label="Fonts">
        <li v-for="family in found" :key="family.name">
          <button
            :class="{ on: family.name === chosen }"
            :aria-label="family.name"
            :aria-pressed="family.name === chosen"
            :title="family.name"
            @click="choose(family.name)"
          >
            <svg
              :viewBox="`0 -1.15 ${Math.max(family.reach, 12)} 1.6`"
              preserveAspectRatio="xMinYMid"
              aria-hidden="true"
            >
              <path :d="family.sample" />
            </svg>
            <small v-if="family.styles.length > 1" class="soft">
              {{ family.styles.length }} styles
            </small>
          </button>
        </li>
        <li v-if="!found.length" class="soft none">No font has that in its name.</li>
      </ul>
      <button class="add" @click="chooser?.click()">+ add a font file</button>
      <input
        ref="chooser"
        class="chooser"
        type="file"
        accept=".ttf,.otf,.woff,.woff2"
        multiple
        tabindex="-1"
        aria-label="Font files"
        @change="add"
      />
    </div>
  </v-menu>
</template>

<style scoped>
.chosen {
  width: 100%;
  padding: 4px 10px;
  overflow: hidden;
  border: 1px solid var(--rule);
  border-radius: 10px;
  background: #fff;
  text-align: left;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.chosen:hover {
  border-color: var(--clay);
}
.fonts {
  display: grid;
  gap: 8px;
  width: 284px;
  padding: 12px;
  background: var(--card);
  border: 1px solid var(--rule);
  border-radius: 16px;
}
input[type='search'] {
  padding: 4px 10px;
  border: 1px solid var(--rule);
  border-radius: 10px;
  background: #fff;
}
ul {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  max-height: 46vh;
  margin: 0;
  padding: 0;
  overflow-y: auto;
  list-style: none;
}
li button {
  display: flex;
  gap: 8px;
  align-items: center;
  width: 100%;
  padding: 5px 8px;
  border-radius: 10px;
  text-align: left;
}
li button:hover,
li button:focus-visible {
  background: #f5eee1;
}
li .on {
  background: var(--chosen);
}
li svg {
  flex: 1;
  min-width: 0;
  height: 27px;
  fill: var(--ink);
}
li small {
  flex: none;
  font-size: 10.5px;
}
.none {
  padding: 6px 8px;
}
.add {
  justify-self: start;
  color: var(--tide);
  font-size: 12.5px;
}
.add:hover {
  text-decoration: underline;
}
.chooser {
  display: none;
}
</style>
