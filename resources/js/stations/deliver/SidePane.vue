<script setup lang="ts">
import { ref } from 'vue'
import type { Schemas } from '@/api/client'
import { bytes, count, counted } from '@/format/counts'
import ErrorNote from '@/parts/ErrorNote.vue'
import FoundPreview from '@/stations/deliver/FoundPreview.vue'
import RefusedRecords from '@/stations/deliver/RefusedRecords.vue'
import { usePart } from '@/stations/deliver/usePart'

const props = defineProps<{ side: 'source' | 'target'; label: string; delivery: Schemas['Delivery'] | null; course: Schemas['Course'] }>()
const { receipt, error, isBusy, sent, send, correct, take, discard } = usePart(() => props.course.id, props.side)

const input = ref<HTMLInputElement | null>(null)
const isOver = ref(false)
const isShowingRefused = ref(false)

function choose(files: FileList | null | undefined): void {
  const file = files?.[0]
  isOver.value = false
  if (file !== undefined && props.course.mayWork) {
    void send(file)
  }
  if (input.value !== null) input.value.value = ''
}

const facts = (delivery: Schemas['Delivery']): string =>
  `${delivery.format.delimiter}s, ${delivery.format.encoding}${delivery.format.byteOrderMark ? ' with byte-order mark' : ''}, lines end with ${delivery.format.lineEnds}, ${bytes(delivery.bytes)}`
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
        {{ counted(delivery.delivered, 'row') }}<template v-if="delivery.refused > 0">, </template>
        <button v-if="delivery.refused > 0" type="button" class="plain link" @click="isShowingRefused = true">
          {{ counted(delivery.refused, 'record') }} refused
        </button>
      </span>
    </h2>
    <template v-if="delivery">
      <div class="part">
        <b :title="delivery.fileName">{{ delivery.fileName }}</b><span class="quiet">{{ facts(delivery) }}</span
        ><span class="number">{{ count(delivery.delivered) }}</span>
      </div>
      <p class="digest quiet">
        SHA-256 <span class="cell">{{ delivery.digest.slice(0, 16) }}…</span>
      </p>
      <p v-if="delivery.delivered === 0" class="warn">This file holds a header and no rows. If that is not what was meant, deliver it again.</p>
    </template>
    <p v-else-if="receipt === null" class="quiet">
      Nothing delivered yet. Drop a delimited text file here (CSV in UTF-8, with the column names in its first line).
    </p>

    <ErrorNote :error="error" />
    <div v-if="receipt?.state === 'receiving'" role="status">
      <el-progress :percentage="Math.floor(sent * 100)" :stroke-width="8" :color="side === 'source' ? 'var(--src)' : 'var(--tgt)'" />
      <span class="quiet">{{ receipt.fileName }}: {{ bytes(receipt.receivedBytes) }} of {{ bytes(receipt.bytes) }} received</span>
    </div>
    <p v-else-if="receipt?.state === 'reading'" role="status" class="quiet">
      Reading {{ receipt.fileName }}: {{ counted(receipt.recordsRead, 'record') }} so far …
    </p>
    <FoundPreview
      v-else-if="receipt?.preview"
      :receipt="receipt"
      :preview="receipt.preview"
      :is-busy="isBusy"
      @correct="correct"
      @take="take"
      @discard="discard"
    />

    <div v-if="course.mayWork && receipt === null" class="choose">
      <input
        ref="input"
        type="file"
        class="unseen"
        :aria-label="`File of the ${label.toLowerCase()}`"
        @change="choose(($event.target as HTMLInputElement).files)"
      />
      <el-button :loading="isBusy" @click="input?.click()">{{
        delivery ? `Deliver the ${label.toLowerCase()} again` : `Choose a file of the ${label.toLowerCase()}`
      }}</el-button>
      <span class="quiet">or drop it here</span>
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
.digest .cell {
  font-size: 12px;
}
.warn {
  background: var(--warn);
  padding: 3px 8px;
}
.choose {
  display: flex;
  gap: 8px;
  align-items: center;
  font-size: 13px;
}
</style>
