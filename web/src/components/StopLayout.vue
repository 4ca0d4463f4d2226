<script setup lang="ts">
import ColumnEdge from './ColumnEdge.vue'
import StopHelp from './StopHelp.vue'

/** Every stop: a heading, the main picture, and the ledger on the right; below each other where the window is narrow. */
defineProps<{ title: string; about?: string }>()
</script>

<template>
  <main id="main" tabindex="-1">
    <header>
      <h1>{{ title }}</h1>
      <span class="second about">{{ about }}</span>
      <span class="actions acts"><slot name="actions" /></span>
      <StopHelp />
    </header>
    <slot />
  </main>
  <div class="column">
    <ColumnEdge />
    <aside aria-label="Ledger"><slot name="ledger" /></aside>
  </div>
</template>

<style scoped>
main {
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  min-height: 0;
  min-width: 0;
  background: var(--sheet);
}
main:focus {
  outline: none;
}
header {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 2px 12px;
  min-height: 3rem;
  padding: 10px 22px 4px;
}
.about {
  flex: 1 1 14rem;
}
.actions:empty {
  display: none;
}
.column {
  position: relative;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  min-height: 0;
}
aside {
  overflow-y: auto;
  min-height: 0;
  padding-bottom: 16px;
  background: var(--panel);
  border-left: 1px solid var(--line);
}
@media (max-width: 860px) {
  main {
    grid-template-rows: auto auto;
  }
  main > :deep(:last-child) {
    min-height: max(18rem, 62vh);
  }
  aside {
    border-top: 1px solid var(--line);
    border-left: 0;
  }
}
</style>
