<script setup lang="ts">
import { useKits } from '@/shelf/kits';

/** Asks what becomes of collections that are on the shelf already. */
const kits = useKits();
</script>

<template>
  <v-dialog :model-value="kits.asked !== null" @update:model-value="kits.asked = null">
    <v-card v-if="kits.asked" class="card" rounded="xl" title="It is there already">
      <p>
        The shelf has <b>{{ kits.asked.there.join(', ') }}</b> already. <i>Replace</i> makes it what
        the file holds; copies that drawings hold stay as they are, and are told. It can be undone.
      </p>
      <div class="row">
        <v-btn @click="kits.load(kits.asked!.file, 'skip')">Skip</v-btn>
        <v-btn variant="outlined" @click="kits.load(kits.asked!.file, 'keep both')">
          Keep both
        </v-btn>
        <v-btn color="primary" variant="flat" @click="kits.load(kits.asked!.file, 'replace')">
          Replace
        </v-btn>
      </div>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.card {
  width: 430px;
}
p {
  margin: 0;
  padding: 0 24px 14px;
  line-height: 1.5;
}
.row {
  display: flex;
  justify-content: flex-end;
  gap: 8px;
  padding: 0 20px 18px;
}
</style>
