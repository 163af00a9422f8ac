<script setup lang="ts">
import { RouterView } from 'vue-router';

import KitQuestion from '@/shelf/KitQuestion.vue';
import { useNotices } from '@/stores/notices';

const notices = useNotices();
</script>

<template>
  <v-app>
    <RouterView :key="$route.path" />
    <KitQuestion />
    <v-snackbar
      :key="notices.serial"
      v-model="notices.open"
      :timeout="notices.timeout"
      color="#22303C"
      rounded="xl"
      :class="{ above: $route.path.startsWith('/drawing/') }"
    >
      <span role="status">{{ notices.text }}</span>
      <template #actions>
        <v-btn v-if="notices.action" color="#F2C9A0" @click="notices.act()">
          {{ notices.action.label }}
        </v-btn>
        <v-btn v-else aria-label="Close this message" @click="notices.open = false">Close</v-btn>
      </template>
    </v-snackbar>
  </v-app>
</template>

<style>
/* In the editor notices lie at the foot of the desk, over no tile and no name. */
.above .v-snackbar__wrapper {
  margin-bottom: 176px;
}
</style>
