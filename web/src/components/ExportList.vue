<script setup lang="ts">
import { api, type Export } from '../api/client'
import { useSay } from '../composables/useSay'
import ProofTag from './ProofTag.vue'

/** What was handed over so far, byte for byte, with what was known of its proof then. */
defineProps<{ files: readonly Export[] | null }>()
const say = useSay()
</script>

<template>
  <section>
    <h2>Handed over so far</h2>
    <p v-if="files?.length === 0" class="second">
      Nothing yet. Every file that is written is kept here, byte for byte.
    </p>
    <ul>
      <li v-for="file in files ?? []" :key="file.id">
        <a :href="api.fileAddress(file.id)" :download="file.file_name">{{ file.file_name }}</a>
        <span class="small second"
          >revision {{ file.revision }}, {{ say.moment(file.made) }},
          {{ say.number(file.bytes / 1024, 1) }} kB</span
        >
        <ProofTag :proof="file.proof" />
      </li>
    </ul>
  </section>
</template>

<style scoped>
li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 0 12px;
  align-items: center;
  padding: 5px 0;
  border-top: 1px solid var(--line);
}
a {
  overflow-wrap: anywhere;
}
li > span {
  justify-self: end;
}
li > .tag {
  grid-row: 2;
  justify-self: start;
}
</style>
