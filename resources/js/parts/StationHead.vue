<script setup lang="ts">
/** The heading of a station asks or states something; its buttons say what happens. */
defineProps<{ heading: string; note?: string }>()
</script>

<template>
  <header class="head">
    <h1>{{ heading }}</h1>
    <span class="note quiet">{{ note }}</span>
    <div class="actions"><slot /></div>
  </header>
</template>

<style scoped>
.head {
  display: flex;
  align-items: center;
  flex-wrap: wrap;
  gap: 4px 12px;
  min-block-size: 52px;
  padding: 6px 16px;
  border-block-end: 1px solid var(--line);
  background: var(--sheet);
}
.note {
  flex: 1 1 120px;
  min-inline-size: 0;
  font-size: 13px;
}
.actions {
  margin-inline-start: auto;
  display: flex;
  gap: 12px;
  flex-wrap: wrap;
}
</style>
