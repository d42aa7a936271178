<script setup lang="ts">
import type { Schemas } from '@/api/client'
import { counted } from '@/format/counts'
import { difference } from '@/format/difference'
import CellValue from '@/parts/CellValue.vue'

/** Rows that meet nothing, each beside the row of the other side that meets nothing either and is likest to it. */
const props = defineProps<{
  beside: Schemas['KeyMeeting']['beside']
  columns: readonly Schemas['KeyColumn'][]
  labels: { source: string; target: string }
  left: number
}>()
const emit = defineEmits<{ close: [] }>()
const stretches = (source: string, target: string | undefined) => difference(source, target ?? '')
</script>

<template>
  <el-dialog :model-value="true" title="Rows that meet none" width="min(900px, 95vw)" @close="emit('close')">
    <p class="quiet">
      {{ counted(props.left, 'row') }} of the source {{ props.left === 1 ? 'meets' : 'meet' }} none by the key. Here are some, each beside the row of the target
      that meets none either and is likest to it.
    </p>
    <table class="figures">
      <thead>
        <tr>
          <th v-for="column in columns" :key="`source ${column.source}`" scope="col">{{ labels.source }}: {{ column.source }}</th>
          <th v-for="column in columns" :key="`target ${column.target}`" scope="col">{{ labels.target }}: {{ column.target }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="(pair, nth) in beside" :key="nth">
          <td v-for="(cell, place) in pair.source" :key="`source ${place}`">
            <CellValue :stretches="stretches(cell, pair.target?.[place]).source" side="source" />
          </td>
          <template v-if="pair.target">
            <td v-for="(cell, place) in pair.target" :key="`target ${place}`">
              <CellValue :stretches="stretches(pair.source[place] ?? '', cell).target" side="target" />
            </td>
          </template>
          <td v-else :colspan="columns.length" class="quiet">none is like it</td>
        </tr>
      </tbody>
    </table>
  </el-dialog>
</template>
