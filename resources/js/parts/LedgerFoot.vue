<script setup lang="ts">
/** A ledger at the foot of a station: a line of figures for each side, source first. */
</script>

<template>
  <footer>
    <p><slot name="source" /></p>
    <p><slot name="target" /></p>
  </footer>
</template>

<style scoped>
footer {
  background: var(--sheet);
  border-block-start: 1px solid var(--line);
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 4px 20px;
  padding: 12px 14px;
  font-size: 13px;
  color: var(--ink-2);
}
p {
  margin: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 5px;
}
p :deep(b) {
  font-weight: 650;
  color: var(--ink);
}
p :deep(b.src) {
  color: var(--src);
}
p :deep(b.tgt) {
  color: var(--tgt);
}
p :deep(i) {
  font: 13px var(--cell);
  color: var(--ink-3);
}
</style>
