<script setup lang="ts">
import { KEY_LISTS } from '@/marks/keys';

const emit = defineEmits<{ close: [] }>();
</script>

<template>
  <v-card class="card" rounded="xl" title="Keys">
    <div class="all">
      <template v-for="list in KEY_LISTS" :key="list.title">
        <h3 v-if="list.title">{{ list.title }}</h3>
        <dl>
          <template v-for="[key, does] in list.keys" :key="does">
            <dt>
              <kbd>{{ key }}</kbd>
            </dt>
            <dd>{{ does }}</dd>
          </template>
        </dl>
      </template>
    </div>
    <v-btn class="close" @click="emit('close')">Close</v-btn>
  </v-card>
</template>

<style scoped>
.card {
  width: min(1120px, 94vw);
  max-height: 90vh;
}
/* The list itself grows as it must: columns of limited height would run on to the right. */
.all {
  overflow-y: auto;
}
dl {
  columns: 4;
  column-gap: 22px;
  margin: 0;
  padding: 0 24px;
}
h3 {
  margin: 14px 24px 6px;
}
dt {
  float: left;
  clear: left;
  width: 96px;
  padding: 3px 0;
  color: var(--clay);
}
dd {
  margin: 0 0 0 96px;
  padding: 3px 0;
  break-inside: avoid;
}
.close {
  align-self: end;
  margin: 8px 20px 16px;
}
</style>
