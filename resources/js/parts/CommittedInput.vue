<script setup lang="ts">
import { ref, watch } from 'vue'

/** A field whose text counts when it is left or Enter is pressed, not at each letter. */
const props = defineProps<{ value: string }>()
const emit = defineEmits<{ commit: [text: string] }>()

const written = ref(props.value)
watch(
  () => props.value,
  (value) => {
    written.value = value
  },
)

/** What is not taken over goes back to what holds. */
function commit(): void {
  if (written.value !== props.value) emit('commit', written.value)
  requestAnimationFrame(() => {
    written.value = props.value
  })
}
</script>

<template>
  <el-input v-model="written" @change="commit" />
</template>
