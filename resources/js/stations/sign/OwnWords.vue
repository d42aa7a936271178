<script setup lang="ts">
import { reactive, ref, watch } from 'vue'
import type { Schemas } from '@/api/client'

/** What an analyst says in the report in their own words, at its two marked places. It is signed with the rest. */
const props = defineProps<{ texts: Schemas['SignOff']['texts']; isBusy: boolean }>()
const emit = defineEmits<{ say: [said: { place: 'opening' | 'closing'; text: string }] }>()
const PLACES = { opening: 'On the first page', closing: 'At the end' } as const
const isOpen = ref(false)
const typed = reactive({ ...props.texts })
watch(
  () => props.texts,
  (texts) => Object.assign(typed, texts),
)
</script>

<template>
  <section aria-label="In your own words">
    <h2>
      In your own words <button type="button" class="plain as-link" :aria-expanded="isOpen" @click="isOpen = !isOpen">{{ isOpen ? 'Close' : 'Write' }}</button>
    </h2>
    <form v-for="(words, place) in isOpen ? PLACES : {}" :key="place" @submit.prevent="emit('say', { place, text: typed[place] })">
      <label :for="`own-${place}`">{{ words }}</label>
      <el-input :id="`own-${place}`" v-model="typed[place]" type="textarea" :rows="3" maxlength="5000" />
      <el-button size="small" native-type="submit" :loading="isBusy" :disabled="typed[place] === texts[place]">Put it into the report</el-button>
    </form>
  </section>
</template>

<style scoped>
h2 {
  display: flex;
  justify-content: space-between;
  gap: 8px;
  margin: 0;
}
h2 button {
  font-size: 13px;
  font-weight: 400;
}
form {
  display: grid;
  gap: 6px;
  justify-items: start;
  margin-block-start: 8px;
  font-size: 13px;
}
</style>
