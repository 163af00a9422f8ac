<script setup lang="ts">
import { useActions } from '@/stores/actions';
import StripTile from '@/strip/StripTile.vue';

/** Puts pieces back, where any were moved or removed. */
const { actions } = useActions();
</script>

<template>
  <StripTile
    v-if="actions.allHome!.can()"
    word="All home"
    how="all pieces"
    title="Put all pieces back to where they come to be"
    @click="actions.allHome!.run()"
  >
    <circle cx="31" cy="29" r="18" stroke-dasharray="3 4" />
    <path d="M31 11A18 18 0 0 1 49 29H31Z" />
    <path d="M56 6 43 19M43 19V11M43 19H51" />
  </StripTile>
</template>
