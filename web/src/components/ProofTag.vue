<script setup lang="ts">
import { computed } from 'vue'

import type { Card } from '../api/client'
import { useSay } from '../composables/useSay'
import { stateOf } from '../stores/proving'

/** What is remembered of a revision's proof, in a few words: of a job in a list, of a file that was handed over. */
const props = defineProps<{ proof: Card['proof']; before?: boolean; unread?: string }>()
const say = useSay()

const TYPES = {
  fits: 'success',
  provided: 'warning',
  'as-seen': 'warning',
  'does-not-fit': 'danger',
} as const
const state = computed(() => (props.proof ? (stateOf(props.proof) as keyof typeof TYPES) : null))
const words = computed(() => {
  if (!props.proof && props.unread) return props.unread
  if (!props.proof) return props.before ? 'Not proved since the last change' : 'Not proved yet'
  return `${say.sentence(props.proof.sentence)}, proved ${say.moment(props.proof.at)}`
})
</script>

<template>
  <ElTag class="tag" :type="state ? TYPES[state] : 'info'" size="small" disable-transitions>{{
    words
  }}</ElTag>
</template>

<style scoped>
.tag {
  height: auto;
  min-height: 1.4rem;
  max-width: 100%;
  white-space: normal;
}
</style>
