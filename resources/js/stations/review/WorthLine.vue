<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas } from '@/api/client'
import { signed } from '@/format/amounts'
import { count } from '@/format/counts'
import { named } from '@/format/said'
import CommittedInput from '@/parts/CommittedInput.vue'
import ErrorNote from '@/parts/ErrorNote.vue'
import FigureValue from '@/parts/FigureValue.vue'
import { DIFFERENCES, type Filter, isOfCells } from '@/stations/review/filter'
import { type Order, ORDERS } from '@/stations/review/useOrder'

/** What the differences of the listed cells come to, and what narrows and sorts the list by them. */
const props = defineProps<{ worth: readonly Schemas['ColumnWorth'][]; error: Error | null; filter: Filter; order: Order | null }>()
const emit = defineEmits<{ narrow: [terms: Filter]; widen: [terms: readonly (keyof Filter)[]]; order: [order: Order | null] }>()

/** Of more columns than these, the rest is shown when it is asked for. */
const FEW = 2
const isWhole = ref(false)
const shown = computed(() => (isWhole.value ? props.worth : props.worth.slice(0, FEW)))
const isWrong = ref(false)
function atLeast(typed: string): void {
  const plain = typed.replace(/[\s,]/g, '').replace(/^[-−+]/, '')
  isWrong.value = plain !== '' && !/^\d{1,300}(\.\d{1,300})?$/.test(plain)
  if (plain === '') emit('widen', ['atLeast'])
  else if (!isWrong.value) emit('narrow', { atLeast: plain })
}
</script>

<template>
  <section v-if="worth.length > 0 || filter.difference !== undefined || filter.atLeast !== undefined" class="worth" aria-label="What the differences come to">
    <ul>
      <li v-for="(column, place) in shown" :key="column.pair">
        <button v-if="worth.length > 1" type="button" class="plain as-link" @click="emit('narrow', { of: 'cells', pair: column.pair })">
          {{ column.source }}
        </button>
        <span v-else>{{ column.source }}</span>
        net <b class="amount"><FigureValue :name="named('worth', place, 'worth')" :of="signed(column.worth.net)" /></b>:
        <template v-if="column.worth.up.cells > 0"
          ><span class="amount"><FigureValue :name="named('worth', place, 'worth')" :of="signed(column.worth.up.sum)" /></span> in
          <FigureValue :name="named('worth', place, 'worth')" :of="column.worth.up.cells" /></template
        ><template v-if="column.worth.up.cells > 0 && column.worth.down.cells > 0">, </template
        ><template v-if="column.worth.down.cells > 0"
          ><span class="amount"><FigureValue :name="named('worth', place, 'worth')" :of="signed(column.worth.down.sum)" /></span> in
          <FigureValue :name="named('worth', place, 'worth')" :of="column.worth.down.cells" /></template
        ><template v-if="column.worth.nought > 0"
          ><template v-if="column.worth.up.cells + column.worth.down.cells > 0">, </template>nought in
          <FigureValue :name="named('worth', place, 'worth')" :of="column.worth.nought" /></template
        ><template v-if="column.worth.up.cells + column.worth.down.cells > 1"
          >; largest <span class="amount"><FigureValue :name="named('worth', place, 'worth')" :of="signed(column.worth.largest)" /></span
        ></template>
      </li>
      <li v-if="worth.length === 0" class="quiet">none of these cells has a difference</li>
      <li v-if="worth.length > FEW">
        <button type="button" class="plain" :aria-expanded="isWhole" @click="isWhole = !isWhole">
          <span data-figure="worth/more">{{ isWhole ? 'fewer columns' : `${count(worth.length - FEW)} more` }}</span>
        </button>
      </li>
    </ul>
    <div v-if="isOfCells(filter)" class="fields">
      <el-select
        :model-value="filter.difference"
        :persistent="false"
        placeholder="Any difference"
        clearable
        size="small"
        class="which"
        aria-label="Differences"
        @change="$event ? emit('narrow', { difference: $event }) : emit('widen', ['difference'])"
      >
        <el-option v-for="(words, difference) in DIFFERENCES" :key="difference" :value="difference" :label="words" />
      </el-select>
      <CommittedInput
        :value="filter.atLeast ?? ''"
        size="small"
        class="least"
        placeholder="at least"
        aria-label="Apart by at least"
        :aria-invalid="isWrong"
        @commit="atLeast"
      />
      <el-select
        :model-value="order ?? undefined"
        :persistent="false"
        placeholder="Source order"
        clearable
        size="small"
        class="order"
        aria-label="What stands first"
        @change="emit('order', $event || null)"
      >
        <el-option v-for="(words, by) in ORDERS" :key="by" :value="by" :label="words" />
      </el-select>
    </div>
    <p v-if="isWrong" role="alert">That is no number. Write digits, and a point before the decimals.</p>
    <ErrorNote :error="error" />
  </section>
</template>

<style scoped>
.worth {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 12px;
  justify-content: space-between;
  align-items: start;
  padding: 5px 14px;
  border-block-end: 1px solid var(--line);
  font-size: 12.5px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 3px 0 0;
  flex: 1 1 280px;
  overflow-wrap: anywhere;
}
.amount {
  font-family: var(--mono);
}
.fields {
  display: flex;
  gap: 6px;
}
.which,
.order {
  inline-size: 124px;
}
.least {
  inline-size: 76px;
}
p {
  margin: 0;
  flex: 1 0 100%;
}
</style>
