<script setup lang="ts">
/** What went wrong with what the person just did. */
defineProps<{ error: Error | null }>()
</script>

<template>
  <p v-if="error !== null" class="error" role="alert">{{ error.message }}</p>
</template>

<style scoped>
.error {
  margin: 0;
  padding: 8px 12px;
  border-inline-start: 3px solid var(--fail);
  background: var(--sheet);
  color: var(--ink);
  max-inline-size: 76ch;
  overflow-wrap: anywhere;
}
</style>
