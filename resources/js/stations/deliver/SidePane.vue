<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas } from '@/api/client'
import { bytes, count, counted as told } from '@/format/counts'
import { partKind } from '@/format/partKinds'
import { moment } from '@/format/moments'
import { figures } from '@/format/said'
import ErrorNote from '@/parts/ErrorNote.vue'
import FigureValue from '@/parts/FigureValue.vue'
import SaidText from '@/parts/SaidText.vue'
import { changeSentence } from '@/stations/deliver/changeSentence'
import ClaimList from '@/stations/deliver/ClaimList.vue'
import QueryForm from '@/stations/deliver/QueryForm.vue'
import RefusedRecords from '@/stations/deliver/RefusedRecords.vue'
import UseOtherDelivery from '@/stations/deliver/UseOtherDelivery.vue'
import { useProfile } from '@/stations/deliver/useProfile'
import { useParts } from '@/stations/deliver/useParts'
import WaitingParts from '@/stations/deliver/WaitingParts.vue'

const props = defineProps<{ side: 'source' | 'target'; label: string; delivery: Schemas['Delivery'] | null; course: Schemas['Course'] }>()
const { receipts, error, isBusy, isReading, isSending, restore, send, ask, correct, takeSheets, take, discard } = useParts(() => props.course.id, props.side)

if (props.course.mayWork) void restore()

const input = ref<HTMLInputElement | null>(null)
const isOver = ref(false)
const isShowingRefused = ref(false)

function choose(files: FileList | null | undefined): void {
  isOver.value = false
  if (files !== null && files !== undefined && files.length > 0 && props.course.mayWork) {
    void send([...files])
  }
  if (input.value !== null) input.value.value = ''
}

/** A file may have several kinds: each record ends by the one that stands behind it. */
function endsOfRecords(usual: string | undefined, counted: Schemas['DeliveryPart']['lineEnds']): string {
  return counted === null || counted.length < 2
    ? `lines end with ${counted?.[0]?.end ?? usual}`
    : `records end with ${counted.map(({ end, records }) => `${end} (${count(records)})`).join(' and ')}`
}

/** What was taken for no row of the table stays told. */
const below = (skipped: number | undefined): string => (skipped === undefined || skipped === 0 ? '' : `, ${told(skipped, 'line')} below left out`)

/** Of a side that came from sources altogether. */
const drawnFrom = computed(() => {
  const of = (props.delivery?.parts ?? []).map(({ query }) => query?.source)
  return of.includes(undefined) ? '' : [...new Set(of)].join(', ')
})

function facts({ format, lineEnds, bytes: size, packedIn, query }: Schemas['DeliveryPart']): string {
  const inPlace = query?.inPlace
  if (inPlace !== undefined)
    return `rows of ${told(inPlace.differing, 'group')} that differ; ${count(inPlace.agreed)} of ${count(inPlace.rows)} rows agree where they stand`
  const drawn = query === null || drawnFrom.value !== '' ? '' : `, drawn from ${query.source}`
  const from = query === null && packedIn !== null ? `, out of ${packedIn}` : drawn
  if (format.kind === 'delimited') {
    const by = /^[a-z]+$/.test(format.delimiter ?? '') ? `${format.delimiter}s` : `divided by ${format.delimiter}`
    return `${by}, ${format.encoding}${format.byteOrderMark === true ? ' with byte-order mark' : ''}, ${endsOfRecords(format.lineEnds, lineEnds)}${format.quote === 'single' ? ', single quotes' : ''}${below(format.skipBelow)}, ${bytes(size)}${from}`
  }
  const where = format.sheet !== undefined ? `, sheet ${format.sheet}` : format.path !== undefined ? `, records at ${format.path}` : ''
  return `${partKind(format.kind)}${where}${below(format.skipBelow)}, ${bytes(size)}${from}`
}

/** The queries of the last delivery, as far as their databases are still known: one press asks them again. */
const queries = computed(() => [
  // Pages of a feed were asked for once.
  ...new Map(
    (props.delivery?.parts ?? []).flatMap(({ query }) =>
      query !== null && props.course.querySources.includes(query.source) ? [[JSON.stringify(query), query] as const] : [],
    ),
  ).values(),
])
const sources = computed(() => [...new Set(queries.value.map(({ source }) => source))].join(', '))
async function askAgain(): Promise<void> {
  for (const { source, sql, values } of queries.value) await ask(source, { sql, ...(values && { values }) })
}

const { data: profile } = useProfile(() => props.course)
const changes = computed(() => profile.value?.changes[props.side] ?? null)
const invitation = computed(() => {
  if (receipts.value.length > 0) return 'Add another part'
  return props.delivery === null ? `Choose files of the ${props.label.toLowerCase()}` : `Deliver the ${props.label.toLowerCase()} again`
})
</script>

<template>
  <section
    class="side"
    :class="{ over: isOver }"
    :aria-label="label"
    @dragover.prevent="isOver = course.mayWork"
    @dragleave="isOver = false"
    @drop.prevent="choose($event.dataTransfer?.files)"
  >
    <h2>
      <span :class="side === 'source' ? 'src' : 'tgt'">{{ label }}</span>
      <span v-if="delivery" class="quiet plain-weight">
        <SaidText :said="figures(`rows/${side}/delivered`, delivery.delivered, 'row')" /><template v-if="delivery.refused > 0">, </template>
        <button v-if="delivery.refused > 0" type="button" class="plain link" @click="isShowingRefused = true">
          <SaidText :said="figures(`rows/${side}/refused`, delivery.refused, 'record')" /> refused
        </button>
        <template v-if="drawnFrom !== ''">, drawn from {{ drawnFrom }}</template
        ><template v-if="delivery.asOf">, as of {{ moment(delivery.asOf) }}</template>
      </span>
    </h2>
    <template v-if="delivery">
      <div v-for="part in delivery.parts" :key="part.number" class="part">
        <b :title="part.fileName">{{ part.fileName }}</b><span class="quiet" :data-figure="`course/${side}/parts`"
          >{{ facts(part) }}<template v-if="delivery.partLabelColumn">, {{ delivery.partLabelColumn }} “{{ part.partLabel }}”</template
          ><template v-if="part.missingColumns.length > 0">, has no {{ part.missingColumns.join(', ') }}</template></span
        ><span class="number"><FigureValue :name="`course/${side}/parts/${part.number - 1}/delivered`" :of="part.delivered" /></span>
      </div>
      <p class="digest quiet">
        SHA-256 <span class="cell">{{ delivery.digest.slice(0, 16) }}…</span>
      </p>
      <p v-if="changes" class="quiet" :data-figure="`changes/${side}`">{{ changeSentence(changes) }}</p>
      <ClaimList :delivery="delivery" :may-work="course.mayWork" />
      <p v-if="delivery.delivered === 0" class="warn">This file holds a header and no rows. If that is not what was meant, deliver it again.</p>
    </template>
    <p v-else-if="receipts.length === 0" class="place quiet">
      <b>Drop the files of the {{ label.toLowerCase() }} here.</b> They are looked at before anything is accepted; when both sides are here, their rows are
      matched. It takes delimited text or text of fixed width, JSON, JSON Lines, XML or a workbook, packed with gzip or zip or not.
    </p>

    <ErrorNote :error="error" />
    <WaitingParts
      v-if="receipts.length > 0"
      :receipts="receipts"
      :dataset="course.id"
      :side="side"
      :is-busy="isBusy"
      :is-sending="isSending"
      :is-reading="isReading"
      @correct="correct"
      @take-sheets="takeSheets"
      @take="take"
      @discard="(...ids: string[]) => discard(...ids)"
    />

    <div v-if="course.mayWork && !isReading" class="choose">
      <input
        ref="input"
        type="file"
        multiple
        class="unseen"
        :aria-label="`File of the ${label.toLowerCase()}`"
        @change="choose(($event.target as HTMLInputElement).files)"
      />
      <el-button :loading="isSending" @click="input?.click()">{{ invitation }}</el-button>
      <span class="quiet">or drag files here</span>
      <UseOtherDelivery :side="side" :label="label" :course="course" />
      <el-button v-if="queries.length > 0 && receipts.length === 0" :loading="isBusy" @click="askAgain">Ask {{ sources }} again</el-button>
      <QueryForm
        v-if="course.querySources.length > 0"
        :dataset="course.id"
        :sources="course.querySources"
        :feeds="course.feeds"
        :folders="course.folders"
        :is-busy="isBusy"
        :label="label"
        :last="queries.at(-1)"
        @ask="ask"
      />
    </div>
    <RefusedRecords v-if="delivery" v-model="isShowingRefused" :delivery="delivery" :label="label" />
  </section>
</template>

<style scoped>
.side {
  padding: 12px 16px 14px;
  display: grid;
  gap: 7px;
  align-content: start;
  min-inline-size: 0;
}
.side + .side {
  border-inline-start: 1px solid var(--line);
}
.over {
  box-shadow: inset 0 0 0 2px var(--ink);
}
h2 {
  display: flex;
  gap: 10px;
  align-items: baseline;
}
.plain-weight {
  font-size: 13px;
  font-weight: 400;
}
.link {
  text-decoration: underline;
}
.part {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 2fr) auto;
  gap: 10px;
  font-size: 12.5px;
  align-items: baseline;
}
.part b {
  font-weight: 550;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
p {
  margin: 0;
  font-size: 13px;
}
.place {
  border: 2px dashed var(--edge);
  border-radius: 4px;
  padding: 18px 16px;
}
.digest .cell {
  font-size: 12px;
}
.warn {
  background: var(--warn);
  padding: 3px 8px;
}
.choose {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
  font-size: 13px;
}
</style>
