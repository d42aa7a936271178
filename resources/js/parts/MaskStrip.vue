<script setup lang="ts">
import { useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { onScopeDispose, ref, watch } from 'vue'
import { answer, api, type Schemas } from '@/api/client'
import { moment } from '@/format/moments'
import ErrorNote from '@/parts/ErrorNote.vue'

/** Which columns are masked for this person, and who had them shown. Shown values are masked again when their hour is over. */
const props = defineProps<{ dataset: number; sensitive: NonNullable<Schemas['Course']['sensitive']> }>()
const queries = useQueryClient()
const path = () => ({ params: { path: { dataset: props.dataset } } })
/** What is in memory was read under the other mask. */
const refresh = () => Promise.all([queries.resetQueries({ queryKey: ['tally'] }), queries.resetQueries({ queryKey: ['dataset'] })])
const show = useMutation({ mutationFn: () => answer(api.POST('/datasets/{dataset}/unmaskings', path())), onSuccess: refresh })
const hide = useMutation({ mutationFn: () => answer(api.DELETE('/datasets/{dataset}/unmaskings', path())), onSuccess: refresh })

let timer: ReturnType<typeof setTimeout> | undefined
watch(
  () => props.sensitive.shownUntil,
  (until) => {
    clearTimeout(timer)
    if (until !== null) timer = setTimeout(() => void refresh(), Math.max(0, new Date(until).getTime() - Date.now()) + 1000)
  },
  { immediate: true },
)
onScopeDispose(() => clearTimeout(timer))

const isListing = ref(false)
const record = useQuery({
  queryKey: ['dataset', () => props.dataset, 'unmaskings'],
  queryFn: () => answer(api.GET('/datasets/{dataset}/unmaskings', path())),
  enabled: isListing,
})
</script>

<template>
  <div class="strip" role="status">
    <template v-if="sensitive.masked.length > 0">
      <span
        >Values of <b class="cell">{{ sensitive.masked.join(', ') }}</b> are masked{{ sensitive.mayShow ? '' : ' for your role' }}.</span
      >
      <el-button v-if="sensitive.mayShow" link :loading="show.isPending.value" @click="show.mutate()">Show them for an hour, on record</el-button>
    </template>
    <template v-else-if="sensitive.shownUntil">
      <span>Sensitive values are shown to you until {{ moment(sensitive.shownUntil) }}, which is on record.</span>
      <el-button link :loading="hide.isPending.value" @click="hide.mutate()">Mask them again</el-button>
    </template>
    <el-button link @click="isListing = true">Who had them shown</el-button>
    <ErrorNote :error="show.error.value ?? hide.error.value" />
    <el-dialog v-model="isListing" title="Who had sensitive values shown" width="520" append-to-body>
      <ErrorNote :error="record.error.value" />
      <p v-if="record.data.value?.items.length === 0" class="quiet">Nobody so far.</p>
      <ul>
        <li v-for="one in record.data.value?.items" :key="`${one.person} ${one.at}`">
          {{ one.person }} {{ one.until === one.at ? 'masked them again' : 'had them shown' }}, {{ moment(one.at) }}
        </li>
      </ul>
    </el-dialog>
  </div>
</template>

<style scoped>
.strip {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 12px;
  padding: 5px 16px;
  font-size: 13px;
  background: var(--mark);
  border-block-end: 1px solid var(--line);
}
ul {
  margin: 0;
  padding: 0;
  list-style: none;
}
</style>
