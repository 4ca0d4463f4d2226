<script setup lang="ts">
import { computed } from 'vue'

import type { Problem, Recipe } from '../api/client'
import ChoiceWord from '../kit/ChoiceWord.vue'
import { optionsOf } from '../kit/options'
import { useSay } from '../composables/useSay'

/** The settings that no drawing shows, as a sentence with choices in it. */
const props = defineProps<{
  recipe: Recipe
  answers: Readonly<Record<string, string>>
  problemAt: (setting: string) => Problem | null
}>()
const emit = defineEmits<{ answer: [setting: string, text: string] }>()
const say = useSay()

/** What is to be set, each with the marks that stand right behind it: no line begins with a full stop. */
const pieces = computed(() =>
  props.recipe.sentence.split(/(\{\w+\}[.,;:]?)/).map((text) => {
    const [, name, behind] = /^\{(\w+)\}([.,;:]?)$/.exec(text) ?? []
    return { text, behind, setting: props.recipe.settings.find((one) => one.name === name) ?? null }
  }),
)

/** What is typed with a unit of its own needs none behind it. */
const unitOf = (text: string | undefined) => (!text || /[a-z"″]\s*$/i.test(text) ? '' : ` ${say.unit}`)
const problems = computed(() =>
  pieces.value.flatMap(({ setting }) => {
    const problem = setting && props.problemAt(setting.name)
    return problem ? [problem] : []
  }),
)
</script>

<template>
  <p v-if="recipe.sentence" class="sentence">
    <template v-for="({ text, behind, setting }, i) in pieces" :key="i">
      <template v-if="!setting">{{ text }}</template>
      <span v-else class="whole"
        ><ChoiceWord
          v-if="setting.kind === 'choice'"
          :label="setting.title"
          :options="optionsOf(setting.choices)"
          :model-value="answers[setting.name]!"
          @update:model-value="emit('answer', setting.name, $event)"
        />
        <span v-else class="typed">
          <input
            class="figure"
            :value="answers[setting.name]"
            :style="{
              width: `${Math.max((answers[setting.name] ?? '').length + 1.5, answers[setting.name] ? 3.5 : 7.5)}ch`,
            }"
            :aria-label="setting.title"
            :placeholder="setting.optional ? 'as usual' : setting.kind === 'words' ? 'nothing' : ''"
            :title="setting.help"
            :aria-invalid="problemAt(setting.name) ? 'true' : undefined"
            autocomplete="off"
            @input="emit('answer', setting.name, ($event.target as HTMLInputElement).value)"
          />{{ setting.kind === 'length' ? unitOf(answers[setting.name]) : '' }}</span
        >{{ behind }}</span
      >
    </template>
    <span v-for="problem in problems" :key="problem.why" class="small bad block">
      {{ say.sentence(problem.why) }} {{ say.sentence(problem.fix) }}
    </span>
  </p>
</template>

<style scoped>
.sentence {
  font-size: 1.13rem;
  line-height: 1.9;
}
.whole {
  white-space: nowrap;
}
.typed input {
  min-height: 1.8rem;
  padding: 0 3px;
  border: 0;
  border-bottom: 2px dashed var(--ochre);
  background: transparent;
  color: var(--deep);
  font-size: 1rem;
  font-weight: 700;
}
.typed input[aria-invalid] {
  border-color: var(--bad);
  color: var(--bad);
}
.typed input::placeholder {
  color: var(--deep);
  font: 600 1.13rem var(--words);
  opacity: 1;
}
.block {
  display: block;
}
</style>
