<script setup lang="ts">
import { useMutation, useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { answer, api, type Schemas } from '@/api/client'
import { counted } from '@/format/counts'
import ErrorNote from '@/parts/ErrorNote.vue'
import { published } from '@/stations/prove/published'

/** Figures that others published of a total, pasted or from a file, with who published them. */
const props = defineProps<{ tally: number; total: Schemas['Total'] }>()
const emit = defineEmits<{ close: [] }>()

const queries = useQueryClient()
const text = ref('')
const publisher = ref('')
const read = computed(() => published(text.value, props.total.total.by?.length ?? 0))
const publish = useMutation({
  mutationFn: () =>
    answer(
      api.POST('/tallies/{tally}/totals/{number}/published-figures', {
        params: { path: { tally: props.tally, number: props.total.number } },
        body: { publisher: publisher.value, figures: read.value.lines },
      }),
    ),
  onSuccess: async () => {
    await queries.invalidateQueries({ queryKey: ['tally', props.tally, 'totals'] })
    emit('close')
  },
})
async function fromFile(event: Event): Promise<void> {
  const file = (event.target as HTMLInputElement).files?.[0]
  if (file !== undefined) text.value = await file.text()
}
</script>

<template>
  <el-dialog :model-value="true" :title="`Figures that others published: ${total.heading}`" width="min(640px, 95vw)" @close="emit('close')">
    <p v-if="total.by" class="quiet">
      One line for each group: {{ total.by }}, a tab or a semicolon, and the figure. A figure alone is for all groups together.
    </p>
    <p v-else class="quiet">The figure that was published.</p>
    <form @submit.prevent="publish.mutate()">
      <label for="published-text">Figures</label>
      <el-input id="published-text" v-model="text" type="textarea" :rows="8" />
      <label for="published-file">or a text file</label>
      <input id="published-file" type="file" accept=".csv,.txt,.tsv,text/plain" @change="fromFile" />
      <label for="published-by">Who published them</label>
      <el-input id="published-by" v-model="publisher" maxlength="200" placeholder="such as: annual report 2026, page 14" />
      <p v-if="read.unread.length > 0" class="warn" role="alert">
        {{ counted(read.unread.length, 'line') }} cannot be read as a group and a figure: <span class="cell">{{ read.unread.slice(0, 3).join(' / ') }}</span>
      </p>
      <ErrorNote :error="publish.error.value" />
      <el-button
        type="primary"
        native-type="submit"
        :loading="publish.isPending.value"
        :disabled="read.lines.length === 0 || read.unread.length > 0 || publisher.trim() === ''"
        >Enter {{ counted(read.lines.length, 'figure') }}</el-button
      >
    </form>
  </el-dialog>
</template>

<style scoped>
form {
  display: grid;
  grid-template-columns: auto minmax(0, 1fr);
  gap: 10px 14px;
  align-items: start;
}
form > p,
form > :last-child {
  grid-column: 1 / -1;
  justify-self: start;
  margin: 0;
}
</style>
