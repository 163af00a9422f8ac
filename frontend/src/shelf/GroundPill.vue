<script setup lang="ts">
import ChoicePill from '@/look/ChoicePill.vue';
import { GROUNDS, useShelf } from '@/stores/shelf';

/** The ground on which all assets are looked at. */
const shelf = useShelf();
const options = GROUNDS.map((value) => ({
  value,
  word: { card: 'Card', dark: 'Dark', colour: 'Colour', checker: 'Clear' }[value],
  title: `look at the assets on ${{ card: 'card', dark: 'a dark ground', colour: 'a colour', checker: 'no ground' }[value]}`,
}));
</script>

<template>
  <ChoicePill v-model="shelf.ground" :options="options" label="Ground" />
</template>
