<script setup lang="ts">
import { computed } from 'vue'

import { useJob } from '../stores/job'
import LedgerPanel from './LedgerPanel.vue'

/** The selected part's own rows, if one is selected. */
const job = useJob()
const part = computed(() => job.design?.parts.find(({ id }) => job.selected === `part:${id}`))
</script>

<template>
  <LedgerPanel
    v-if="part"
    :subject="`part:${part.id}`"
    :title="part.title"
    about="the part that is selected"
  />
</template>
