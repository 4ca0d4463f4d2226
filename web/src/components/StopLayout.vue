<script setup lang="ts">
/** Every stop: a heading, the main picture, and the ledger on the right. */
defineProps<{ title: string; about?: string }>()
</script>

<template>
  <main>
    <header>
      <h1>{{ title }}</h1>
      <span class="second">{{ about }}</span>
      <slot name="actions" />
    </header>
    <slot />
  </main>
  <aside aria-label="Ledger"><slot name="ledger" /></aside>
</template>

<style scoped>
main {
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  min-height: 0;
  min-width: 0;
  background: var(--sheet);
}
header {
  display: flex;
  align-items: baseline;
  gap: 12px;
  min-height: 44px;
  padding: 12px 22px 6px;
}
h1 {
  font-size: 16px;
  font-weight: 600;
  white-space: nowrap;
}
aside {
  overflow-y: auto;
  padding-bottom: 16px;
  background: var(--panel);
  border-left: 1px solid var(--line);
}
</style>
