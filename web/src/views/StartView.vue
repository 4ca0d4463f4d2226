<script setup lang="ts">
import { computed, onMounted } from 'vue'
import { useRoute } from 'vue-router'

import PageSkeleton from '../components/PageSkeleton.vue'
import ProblemNote from '../components/ProblemNote.vue'
import StartEmpty from '../components/StartEmpty.vue'
import StartRecipe from '../components/StartRecipe.vue'
import TitleLine from '../components/TitleLine.vue'
import { useProblem } from '../composables/useProblem'
import { useChoices } from '../stores/choices'
import { useWorkshop } from '../stores/workshop'

/** A new job: the thing to scale, with its sizes on it; or an empty one. */
const route = useRoute()
const choices = useChoices()
const workshop = useWorkshop()
const { problem, tell } = useProblem()

const name = computed(() => String(route.params['recipe']))
const recipe = computed(() => choices.choices?.recipes.find((one) => one.name === name.value) ?? null)
const ready = computed(() => choices.choices && workshop.boards && workshop.machines)

onMounted(() => tell(async () => void (await Promise.all([choices.load(), workshop.load()]))))
</script>

<template>
  <div class="start">
    <TitleLine>
      <b>New job</b>
      <span class="about">{{ recipe?.title.toLowerCase() ?? (name === 'empty' ? 'empty' : '') }}</span>
      <template #actions>
        <RouterLink class="back" :to="{ name: 'home' }">Leave; the draft is saved</RouterLink>
      </template>
    </TitleLine>
    <StartRecipe v-if="ready && recipe" :key="recipe.name" :recipe="recipe" />
    <StartEmpty v-else-if="ready && name === 'empty'" />
    <main v-else-if="ready" id="main" class="none">
      <p>
        There is no recipe “{{ name }}”.
        <RouterLink :to="{ name: 'home' }">Choose one from the shelf.</RouterLink>
      </p>
    </main>
    <main v-else-if="problem" id="main" class="none"><ProblemNote :problem="problem" /></main>
    <PageSkeleton v-else />
  </div>
</template>

<style scoped>
.start {
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  height: 100%;
  background: var(--sheet);
}
@media (max-width: 860px) {
  .start {
    height: auto;
    min-height: 100%;
  }
}
.about {
  color: var(--title-second);
}
.back {
  color: var(--title-second);
}
.none {
  padding: 30px 24px;
}
</style>
