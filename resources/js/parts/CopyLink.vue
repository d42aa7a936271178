<script setup lang="ts">
import { nextTick, ref, useTemplateRef } from 'vue'

/** Copies the address of what is open. Where the browser keeps the clipboard for itself (no TLS), the address is shown to be copied by hand. */
const said = ref<'copied' | 'shown' | null>(null)
const address = ref('')
const field = useTemplateRef<HTMLInputElement>('field')
async function copy(): Promise<void> {
  address.value = globalThis.location.href
  said.value = null
  try {
    await navigator.clipboard.writeText(address.value)
    said.value = 'copied'
  } catch {
    said.value = 'shown'
    await nextTick()
    field.value?.select()
  }
}
</script>

<template>
  <span class="copy">
    <button type="button" class="plain as-link" @click="copy">Copy the link</button>
    <span role="status" class="quiet">{{ said === 'copied' ? 'copied' : said === 'shown' ? 'copy it from here:' : '' }}</span>
    <input v-if="said === 'shown'" ref="field" readonly :value="address" aria-label="Link to what is open" @focus="field?.select()" />
  </span>
</template>

<style scoped>
.copy {
  display: inline-flex;
  flex-wrap: wrap;
  gap: 0 6px;
  align-items: baseline;
}
input {
  inline-size: 100%;
  font: inherit;
}
</style>
