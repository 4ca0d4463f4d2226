<script setup lang="ts">
import { shallowRef } from 'vue'

import type { Uses } from '../api/client'

/** Archives a board or machine; where jobs are of it, it says so first. */
const props = defineProps<{ what: string; uses: () => Promise<Uses> }>()
const emit = defineEmits<{ archive: [] }>()
const asked = shallowRef<Uses | null>(null)

async function ask(): Promise<void> {
  const uses = await props.uses()
  if (uses.own.length || uses.others) asked.value = uses
  else emit('archive')
}

function archive(): void {
  asked.value = null
  emit('archive')
}

function jobs({ own, others }: Uses): string {
  const mine = own.length ? `your jobs ${own.slice(0, 4).join(', ')}${own.length > 4 ? ' and more' : ''}` : ''
  const theirs = others ? `${others} job${others > 1 ? 's' : ''} of other makers` : ''
  return [mine, theirs].filter(Boolean).join(' and ')
}
</script>

<template>
  <p class="away">
    <template v-if="asked">
      It is used by {{ jobs(asked) }}. They keep their own copy of it.
      <button class="link" @click="archive">Archive</button>
      <button class="link" @click="asked = null">Cancel</button>
    </template>
    <button v-else class="link" @click="ask">Archive this {{ what }}</button>
  </p>
</template>

<style scoped>
.away {
  margin-top: 18px;
  padding: 0 18px;
}
</style>
