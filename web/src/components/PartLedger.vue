<script setup lang="ts">
import { useJob } from '../stores/job'
import LedgerPanel from './LedgerPanel.vue'

/** The selected part's own rows, if one is selected. */
const job = useJob()
</script>

<template>
  <LedgerPanel v-if="job.part" :subject="`part:${job.part.id}`" :title="job.part.title" />
</template>
