<script setup lang="ts">
import { useSay } from '../composables/useSay'
import { useJob } from '../stores/job'
import LengthField from './LengthField.vue'
import ProblemNote from './ProblemNote.vue'
import RecipeSettings from './RecipeSettings.vue'

/** A job that cannot be computed any more: why, and the fields with which it may be mended. */
const job = useJob()
const say = useSay()
const answered = (name: string) => job.design!.answers.some(({ setting }) => setting.name === name)
const NAMES = { margin: 'Margin', spacing: 'Spacing' } as const
const pathOf = (name: string) => (answered(name) ? `answers/${name}` : `dimensions/${name}/length`)
</script>

<template>
  <main id="main" tabindex="-1">
    <h1>This job cannot be computed</h1>
    <ProblemNote :problem="job.problem ?? job.design!.problem!" />
    <p v-if="!job.design!.boards.length" class="second">
      Its document cannot be read. Go to an older revision in its history.
    </p>
    <template v-else>
      <p class="second">Change what is wrong here, or go to an older revision in its history.</p>
      <LengthField
        v-for="one in job.design!.lengths.filter(({ source }) => source === 'chosen')"
        :key="one.name"
        :field="pathOf(one.name)"
        :label="one.title"
        :text="say.edit(one.text, one.unit)"
        @commit="job.put(pathOf(one.name), $event)"
      />
      <template v-for="{ id, title, ...board } in job.design!.boards" :key="id">
        <LengthField
          v-for="what in ['margin', 'spacing'] as const"
          :key="what"
          :field="`layout/${id}/${what}`"
          :label="
            job.design!.boards.length > 1
              ? `${NAMES[what]} on sheets of ${title}`
              : `${NAMES[what]} on sheets`
          "
          :text="say.edit(String(board[what]), 'mm')"
          @commit="job.put(`layout/${id}/${what}`, $event)"
        />
      </template>
      <RecipeSettings />
    </template>
  </main>
</template>

<style scoped>
main {
  grid-row: 3 / -1;
  display: grid;
  align-content: start;
  gap: 12px;
  max-width: 32rem;
  padding: 30px 24px;
  overflow-y: auto;
}
</style>
