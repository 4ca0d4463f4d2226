<script setup lang="ts">
import { useJob } from '../stores/job'

/** How inside corners that take a square mate are cleared for a round tool. */
const job = useJob()
const TITLES: Record<string, string> = {
  auto: 'as the machine needs: dogbones for a router',
  dogbone: 'dogbones',
  't-bone': 'T-bones, into the fingers',
  none: 'none',
}
</script>

<template>
  <label class="second">
    Inside-corner relief
    <select
      class="boxed"
      data-field="relief"
      :value="job.design!.relief"
      @change="job.put('relief', ($event.target as HTMLSelectElement).value)"
    >
      <option v-for="(title, name) in TITLES" :key="name" :value="name">{{ title }}</option>
    </select>
  </label>
</template>

<style scoped>
label {
  display: block;
  padding: 12px 18px 4px;
}
</style>
