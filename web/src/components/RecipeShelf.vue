<script setup lang="ts">
import type { Choices } from '../api/client'
import { boxOf } from '../geometry/pictured'
import StandingPicture from './StandingPicture.vue'

/** Recipes as drawings, each as large as the shelf allows: they are not at one scale. */
defineProps<{ recipes: Choices['recipes'] }>()
const HEIGHT_PX = 96
const WIDTH_PX = 150

function scaleOf(recipe: Choices['recipes'][number]): number {
  const [left, low, right, top] = boxOf(recipe)
  return Math.min(HEIGHT_PX / (top - low), WIDTH_PX / (right - left))
}
</script>

<template>
  <ul class="shelf">
    <li v-for="recipe in recipes" :key="recipe.name">
      <RouterLink :to="{ name: 'start', params: { recipe: recipe.name } }">
        <span class="stand"><StandingPicture :of="recipe" :scale="scaleOf(recipe)" /></span>
        <b>{{ recipe.title }}</b>
        <span class="small second">{{ recipe.about }}</span>
      </RouterLink>
    </li>
    <li>
      <RouterLink :to="{ name: 'start', params: { recipe: 'empty' } }">
        <span class="stand"><i class="blank" /></span>
        <b>Empty job</b>
        <span class="small second">parts added one by one</span>
      </RouterLink>
    </li>
  </ul>
</template>

<style scoped>
.shelf {
  display: flex;
  flex-wrap: wrap;
  gap: 10px 22px;
}
li {
  width: 11.5rem;
}
a {
  display: grid;
  color: inherit;
  text-decoration: none;
}
.stand {
  display: flex;
  align-items: end;
  height: 104px;
  margin-bottom: 6px;
  padding-left: 4px;
  border-bottom: 1.5px solid var(--ink);
}
.blank {
  width: 104px;
  height: 64px;
  border: 1.5px dashed var(--edge);
  border-bottom: 0;
}
a:hover :deep(path),
a:focus-visible :deep(path) {
  fill: var(--deep-wash);
  stroke: var(--deep);
}
a:hover .blank {
  border-color: var(--deep);
}
</style>
