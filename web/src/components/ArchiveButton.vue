<script setup lang="ts">
import type { Uses } from '../api/client'
import { notice } from '../kit/notice'

/** Archives a board or machine at once, says which jobs use it, and offers the way back. */
const props = defineProps<{
  what: string
  name: string
  uses: () => Promise<Uses>
  archive: () => Promise<boolean>
  restore: () => Promise<unknown>
}>()

async function put(): Promise<void> {
  const { name, restore } = props // the next one is shown once this one is archived
  const jobs = said(await props.uses())
  if (await props.archive()) notice(`${name} is archived.${jobs}`, () => void restore())
}

function said({ own, others }: Uses): string {
  const mine = own.length ? `your jobs ${own.slice(0, 4).join(', ')}${own.length > 4 ? ' and more' : ''}` : ''
  const theirs = others ? `${others} job${others > 1 ? 's' : ''} of other makers` : ''
  const all = [mine, theirs].filter(Boolean).join(' and ')
  return all && ` Used by ${all}: they keep their own copy.`
}
</script>

<template>
  <p class="away">
    <ElButton link @click="put">Archive this {{ what }}</ElButton>
  </p>
</template>

<style scoped>
.away {
  margin-top: 18px;
}
</style>
