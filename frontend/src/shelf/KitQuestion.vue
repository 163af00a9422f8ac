<script setup lang="ts">
import MessageCard from '@/look/MessageCard.vue';
import { useKits } from '@/shelf/kits';

/** Asks what becomes of collections that are on the shelf already. */
const kits = useKits();
</script>

<template>
  <v-dialog :model-value="kits.asked !== null" @update:model-value="kits.asked = null">
    <MessageCard v-if="kits.asked" title="It is there already">
      <p>
        The shelf has <b>{{ kits.asked.there.join(', ') }}</b> already. <i>Replace</i> makes it what
        the file holds; copies that drawings hold stay as they are, and are told. It can be undone.
      </p>
      <template #foot>
        <v-btn @click="kits.load(kits.asked!.file, 'skip')">Skip</v-btn>
        <v-btn variant="outlined" @click="kits.load(kits.asked!.file, 'keep both')">
          Keep both
        </v-btn>
        <v-btn color="primary" variant="flat" @click="kits.load(kits.asked!.file, 'replace')">
          Replace
        </v-btn>
      </template>
    </MessageCard>
  </v-dialog>
</template>
