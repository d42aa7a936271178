<script setup lang="ts">
import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref, useTemplateRef } from 'vue'
import { answer, api, type Schemas } from '@/api/client'
import { count, counted } from '@/format/counts'
import CellValue from '@/parts/CellValue.vue'
import ErrorNote from '@/parts/ErrorNote.vue'
import LoadState from '@/parts/LoadState.vue'
import StationHead from '@/parts/StationHead.vue'

/** Keys that bridges join: how both sides spell them, what the newest tally made of them, and which side is right. */
const props = defineProps<{ course: Schemas['Course'] }>()
const PAGE = 100
type Item = Schemas['BridgePage']['items'][number]

const page = ref(1)
const { data, error, isPending, refetch } = useQuery({
  queryKey: ['dataset', () => props.course.id, 'bridges', () => props.course.tally?.id, page],
  queryFn: ({ signal }) =>
    answer(api.GET('/datasets/{dataset}/bridges', { params: { path: { dataset: props.course.id }, query: { from: (page.value - 1) * PAGE + 1 } }, signal })),
  placeholderData: keepPreviousData,
})
const client = useQueryClient()
const ruling = useMutation({
  // One after the other: each is made on the draft that the one before it left.
  scope: { id: 'plan-draft' },
  mutationFn: ({ numbers, decision }: { numbers: number[]; decision: 'source' | 'target' | 'open' | 'removed' }) =>
    answer(
      api.POST('/datasets/{dataset}/bridges/rulings', {
        params: { path: { dataset: props.course.id } },
        body: { numbers, decision, seenDraft: data.value?.draft ?? 0 },
      }),
    ),
  onSettled: () => client.invalidateQueries({ queryKey: ['dataset', props.course.id] }),
})
/** What the target has to set, as a set of corrections: the next tally says of each line whether it was done. */
const correcting = useMutation({
  mutationFn: () => answer(api.POST('/datasets/{dataset}/bridges/corrections', { params: { path: { dataset: props.course.id } } })),
  onSuccess: () => client.invalidateQueries({ queryKey: ['dataset', props.course.id, 'corrections'] }),
})
/** A table of bridges, counted before it is put into the plan. */
const table = ref<{ name: string; text: string } | null>(null)
const isWhole = ref(false)
const reading = useMutation({
  mutationFn: (isTried: boolean) =>
    answer(
      api.PUT('/datasets/{dataset}/bridges/table', {
        params: { path: { dataset: props.course.id } },
        body: { table: table.value?.text ?? '', isWhole: isWhole.value, isTried, seenDraft: data.value?.draft ?? 0 },
      }),
    ),
  onSuccess: (_, isTried) => {
    if (isTried) return
    table.value = null
    return client.invalidateQueries({ queryKey: ['dataset', props.course.id] })
  },
})
async function choose(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  input.value = ''
  if (file === undefined) return
  table.value = { name: file.name, text: await file.text() }
  reading.mutate(true)
}
const chooser = useTemplateRef<HTMLInputElement>('chooser')
const counts = computed(() => reading.data.value?.counts)
const label = (side: 'source' | 'target'): string => (side === 'source' ? props.course.migration.sourceLabel : props.course.migration.targetLabel)
const pages = computed(() => Math.ceil((data.value?.total ?? 0) / PAGE))
const stateOf = ({ state, cells }: Item): string =>
  ({ agrees: 'its rows agree', differs: `${counted(cells, 'cell')} differ`, idle: 'idle: a key has a counterpart, or no row', new: 'from the next tally on' })[
    state
  ]
const said = computed(() => (data.value?.items ?? []).filter(({ right }) => right !== null).length)
</script>

<template>
  <main class="station">
    <StationHead heading="Keys that bridges join" :words="['bridge']" note="which side is right says what has to be corrected on the other">
      <RouterLink class="button" :to="`/datasets/${course.id}/near-keys`">Rows that may be the same</RouterLink>
      <RouterLink class="button" :to="`/datasets/${course.id}/review`">Back to Review</RouterLink>
    </StationHead>
    <LoadState :is-loading="isPending" :error="error" what="The list of bridges" @retry="refetch()">
      <ErrorNote v-if="ruling.error.value ?? correcting.error.value" :error="ruling.error.value ?? correcting.error.value" />
      <p v-else-if="correcting.data.value" class="done" role="status">
        <span
          ><RouterLink :to="`/datasets/${course.id}/defects`">Corrections {{ correcting.data.value.number }}</RouterLink> of
          {{ counted(correcting.data.value.lines, 'key', 'keys') }} are made. The next tally says of each whether it was done.</span
        >
      </p>
      <p v-if="course.mayWork && data !== undefined" class="over">
        <el-button size="small" @click="chooser?.click()">Read bridges from a table</el-button>
        <span class="quiet"
          >a line for each, with the columns {{ data.key.map(({ source }) => `“source ${source}”`).join(', ') }} and
          {{ data.key.map(({ target }) => `“target ${target}”`).join(', ') }}, as the download has them</span
        >
        <input ref="chooser" type="file" accept=".csv,.tsv,.txt" tabindex="-1" class="unseen" aria-label="Table of bridges" @change="choose" />
      </p>
      <el-dialog :model-value="table !== null" :title="`Bridges of ${table?.name ?? ''}`" width="min(520px, 95vw)" @close="table = null">
        <ErrorNote v-if="reading.error.value" :error="reading.error.value" />
        <p v-else-if="counts" role="status">
          {{ counted(counts.added, 'bridge') }} more, {{ count(counts.changed) }} changed, {{ count(counts.removed) }} taken back:
          {{ counted(counts.total, 'bridge') }} then.
        </p>
        <p v-else class="quiet" role="status">Reading the table …</p>
        <el-checkbox v-model="isWhole" @change="reading.mutate(true)">The table has all of them: what is not in it is taken back</el-checkbox>
        <template #footer>
          <el-button @click="table = null">Leave it</el-button>
          <el-button type="primary" :disabled="reading.isError.value || counts === undefined" :loading="reading.isPending.value" @click="reading.mutate(false)"
            >Put them into the plan</el-button
          >
        </template>
      </el-dialog>
      <p v-if="data?.total === 0" class="quiet waits">
        The plan has no bridge. They are confirmed among
        <RouterLink :to="`/datasets/${course.id}/near-keys`">missing and extra rows that may be the same</RouterLink>.
      </p>
      <template v-else-if="data">
        <p class="over">
          <span>{{ counted(data.total, 'bridge') }}</span>
          <template v-if="course.mayWork">
            <el-button v-for="side in ['source', 'target'] as const" :key="side" size="small" @click="ruling.mutate({ numbers: [], decision: side })"
              >The {{ label(side).toLowerCase() }} is right in all</el-button
            >
            <el-button v-if="said > 0" size="small" @click="ruling.mutate({ numbers: [], decision: 'open' })">Say it of none</el-button>
          </template>
          <el-button v-if="course.mayRule && said > 0" size="small" :loading="correcting.isPending.value" @click="correcting.mutate()"
            >Make corrections for the {{ label('target').toLowerCase() }}</el-button
          >
          <span class="quiet">Download them, with what has to be corrected, as <a :href="`/api/v1/datasets/${course.id}/bridges/file`" download>CSV</a>.</span>
          <el-pagination v-if="pages > 1" v-model:current-page="page" small layout="prev, pager, next" :page-count="pages" />
        </p>
        <div class="lines" tabindex="0" role="region" aria-label="Bridges">
          <table class="figures">
            <thead>
              <tr>
                <th scope="col" class="number">no.</th>
                <th scope="col" class="src">{{ label('source') }}: {{ data.key.map(({ source }) => source).join(', ') }}</th>
                <th scope="col" class="tgt">{{ label('target') }}: {{ data.key.map(({ target }) => target).join(', ') }}</th>
                <th scope="col">in the newest tally</th>
                <th scope="col">right is</th>
                <td></td>
              </tr>
            </thead>
            <tbody>
              <tr v-for="item in data.items" :key="item.number">
                <td class="number">{{ count(item.number) }}</td>
                <td v-for="side in ['source', 'target'] as const" :key="side">
                  <template v-for="(cell, place) in item[side]" :key="place"
                    ><span v-if="place > 0" class="quiet"> + </span><CellValue :stretches="[{ text: cell, differs: false }]" :side="side"
                  /></template>
                </td>
                <td :class="{ warn: item.state === 'idle' }">{{ stateOf(item) }}</td>
                <td>
                  <el-select
                    :model-value="item.right ?? 'open'"
                    size="small"
                    :disabled="!course.mayWork"
                    :aria-label="`Right of bridge ${item.number}`"
                    @update:model-value="ruling.mutate({ numbers: [item.number], decision: $event })"
                  >
                    <el-option value="open" label="not said" />
                    <el-option v-for="side in ['source', 'target'] as const" :key="side" :value="side" :label="label(side)" />
                  </el-select>
                </td>
                <td>
                  <el-button
                    v-if="course.mayWork"
                    link
                    size="small"
                    :aria-label="`Take back bridge ${item.number}`"
                    @click="ruling.mutate({ numbers: [item.number], decision: 'removed' })"
                    >Take back</el-button
                  >
                </td>
              </tr>
            </tbody>
          </table>
        </div>
      </template>
    </LoadState>
  </main>
</template>

<style scoped src="@/stations/review/desk.css"></style>
<style scoped>
td :deep(.el-select) {
  inline-size: 150px;
}
td.warn {
  padding-inline: 8px;
}
</style>
