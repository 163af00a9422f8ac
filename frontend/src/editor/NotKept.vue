<script setup lang="ts">
import { useClipboard } from '@/stores/clipboard';

/** What of a file could not be kept, each by its name and place. */
const clipboard = useClipboard();
</script>

<template>
  <v-dialog
    :model-value="clipboard.notKept !== null"
    @update:model-value="clipboard.notKept = null"
  >
    <v-card v-if="clipboard.notKept" class="card" rounded="xl" title="Not all could be kept">
      <p>The shapes of {{ clipboard.notKept.name }} are on the plate, but for this:</p>
      <ul>
        <li v-for="note in clipboard.notKept.notes" :key="note">{{ note }}</li>
      </ul>
      <div class="row">
        <v-btn color="primary" variant="flat" @click="clipboard.notKept = null">Close</v-btn>
      </div>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.card {
  width: 520px;
  max-height: 70vh;
}
p {
  margin: 0;
  padding: 0 24px 8px;
}
ul {
  margin: 0;
  padding: 0 24px 0 42px;
  overflow-y: auto;
  line-height: 1.6;
  overflow-wrap: anywhere;
}
.row {
  display: flex;
  justify-content: flex-end;
  padding: 14px 20px 18px;
}
</style>
