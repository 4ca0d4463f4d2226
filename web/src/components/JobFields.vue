<script setup lang="ts">
import { useJob } from '../stores/job'
import LengthField from './LengthField.vue'

/** What is of the whole job: how many sets are made of it. */
const job = useJob()
</script>

<template>
  <section>
    <LengthField
      class="sets"
      field="sets"
      label="Sets to make"
      plain
      :text="String(job.design!.sets)"
      @commit="job.put('sets', $event)"
    />
  </section>
</template>

<style scoped>
section {
  padding: 8px 18px 10px 29px;
}
.sets {
  max-width: 9rem;
}
</style>
