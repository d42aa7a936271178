<script setup lang="ts">
/** Whether the values of a column are masked that nobody compares: the record shows it all the same. */
defineProps<{ side: 'source' | 'target'; name: string; isOn: boolean; mayWork: boolean }>()
const emit = defineEmits<{ flag: [isOn: boolean] }>()
</script>

<template>
  <label class="quiet">
    <input
      type="checkbox"
      :checked="isOn"
      :disabled="!mayWork"
      :aria-label="`${name} of the ${side} is sensitive`"
      @change="emit('flag', ($event.target as HTMLInputElement).checked)"
    />
    sensitive
  </label>
</template>

<style scoped>
label {
  display: inline-flex;
  gap: 5px;
  align-items: center;
  font-weight: 400;
  font-size: 12.5px;
}
</style>
