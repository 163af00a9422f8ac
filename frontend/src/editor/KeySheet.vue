<script setup lang="ts">
import { KEYS } from '@/editor/keys';

const emit = defineEmits<{ close: [] }>();
</script>

<template>
  <v-card class="card" rounded="xl" title="Keys">
    <dl>
      <template v-for="[key, does] in KEYS" :key="key">
        <dt>
          <kbd>{{ key }}</kbd>
        </dt>
        <dd>{{ does }}</dd>
      </template>
    </dl>
    <v-btn class="close" @click="emit('close')">Close</v-btn>
  </v-card>
</template>

<style scoped>
.card {
  width: 620px;
}
dl {
  columns: 2;
  column-gap: 28px;
  margin: 0;
  padding: 0 24px;
}
dt {
  float: left;
  clear: left;
  width: 108px;
  padding: 4px 0;
  color: var(--clay);
}
dd {
  margin: 0 0 0 108px;
  padding: 4px 0;
  break-inside: avoid;
}
.close {
  align-self: end;
  margin: 8px 20px 16px;
}
</style>
