<script setup lang="ts">
import MessageCard from '@/look/MessageCard.vue';
import { useClipboard } from '@/stores/clipboard';

/** What of a file could not be kept, each by its name and place. */
const clipboard = useClipboard();
</script>

<template>
  <v-dialog
    :model-value="clipboard.notKept !== null"
    @update:model-value="clipboard.notKept = null"
  >
    <MessageCard v-if="clipboard.notKept" title="Not all could be kept" :width="520">
      <p>The shapes of {{ clipboard.notKept.name }} are on the plate, but for this:</p>
      <ul>
        <li v-for="note in clipboard.notKept.notes" :key="note">{{ note }}</li>
      </ul>
      <template #foot>
        <v-btn color="primary" variant="flat" @click="clipboard.notKept = null">Close</v-btn>
      </template>
    </MessageCard>
  </v-dialog>
</template>

<style scoped>
ul {
  margin: 8px 0 0;
  padding-left: 18px;
  line-height: 1.6;
  overflow-wrap: anywhere;
}
</style>
