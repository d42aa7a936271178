<script setup lang="ts">
/** What stands where content is not there yet, or cannot be had. */
defineProps<{ isLoading: boolean; error: Error | null; what: string }>()
const emit = defineEmits<{ retry: [] }>()
</script>

<template>
  <div v-if="error !== null" class="state" role="alert">
    <h2>{{ what }} could not be loaded</h2>
    <p>{{ error.message }}</p>
    <el-button @click="emit('retry')">Try again</el-button>
  </div>
  <div v-else-if="isLoading" class="state" role="status">
    <p class="quiet">Loading {{ what.toLowerCase() }} …</p>
  </div>
  <slot v-else />
</template>

<style scoped>
.state {
  padding: 24px;
  display: grid;
  gap: 8px;
  justify-items: start;
  align-content: start;
  max-inline-size: 64ch;
}
p {
  margin: 0;
}
</style>
