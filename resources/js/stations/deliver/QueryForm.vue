<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, reactive, ref, watch } from 'vue'
import { answer, api } from '@/api/client'
import { count } from '@/format/counts'
import ErrorNote from '@/parts/ErrorNote.vue'
import { namesIn } from '@/stations/deliver/boundNames'
import type { Asked } from '@/stations/deliver/useParts'

/** A delivery that is asked of a database instead of a file: the rows of a table, or of a query. */
const props = defineProps<{
  dataset: number
  sources: readonly string[]
  feeds: readonly string[]
  folders: readonly string[]
  isBusy: boolean
  label: string
  last?: { source: string; sql: string; values?: Record<string, string> }
}>()
const emit = defineEmits<{ ask: [source: string, what: Asked] }>()
const isOpen = ref(false)
const source = ref(props.last?.source ?? props.sources[0] ?? '')
const sql = ref(props.last?.sql ?? '')
/** Names in the query that stand for values; the server looks closer. */
const names = computed(() => namesIn(sql.value))
const values = reactive<Record<string, string>>({ ...props.last?.values })
/** A feed is asked for what is added to its address, or for nothing more. */
const isFeed = computed(() => props.feeds.includes(source.value))
const further = ref(props.last !== undefined && props.feeds.includes(props.last.source) ? props.last.sql : '')
/** Of a folder the newest file of a name is taken, or all of them as parts. */
const isFolder = computed(() => props.folders.includes(source.value))
const lastOfFolder = props.last !== undefined && props.folders.includes(props.last.source) ? props.last.sql : ''
const CHOICES = {
  newest: 'the newest that is called so',
  all: 'all that are called so, as parts',
  since: 'all that are called so and no delivery has had, as parts',
  together: 'the newest and what came within 15 minutes before, as parts',
  manifest: 'what the newest list of this name names, as parts',
} as const
type Choice = keyof typeof CHOICES
const chosen = Object.keys(CHOICES).find((one) => lastOfFolder.startsWith(`${one} `))
const choice = ref<Choice>((chosen as Choice | undefined) ?? 'newest')
const pattern = ref(chosen === undefined ? lastOfFolder : lastOfFolder.slice(chosen.length + 1))
const isOfTable = ref(props.last === undefined)
const isDatabase = computed(() => !isFeed.value && !isFolder.value)
const table = ref('')
const columns = ref<string[]>([])
const where = ref('')
const orderBy = ref<string[]>([])
const path = { dataset: props.dataset }
const tables = useQuery({
  queryKey: ['dataset', props.dataset, 'source-tables', source],
  queryFn: ({ signal }) => answer(api.GET('/datasets/{dataset}/source-tables', { params: { path, query: { source: source.value } }, signal })),
  enabled: () => isOpen.value && isOfTable.value && isDatabase.value,
  retry: false,
})
const known = useQuery({
  queryKey: ['dataset', props.dataset, 'source-columns', source, table],
  queryFn: ({ signal }) =>
    answer(api.GET('/datasets/{dataset}/source-columns', { params: { path, query: { source: source.value, table: table.value } }, signal })),
  enabled: () => isOpen.value && isOfTable.value && isDatabase.value && table.value !== '',
  retry: false,
})
watch(source, () => (table.value = ''))
watch(table, () => {
  columns.value = []
  orderBy.value = []
})
/** In the order of its key the rows of two draws can be held against each other by eye. */
watch(
  () => known.data.value,
  (found) => (orderBy.value = (found?.items ?? []).filter(({ isKey }) => isKey).map(({ name }) => name)),
)
type Kind = 'feed' | 'folder' | 'table' | 'query'
const kind = computed<Kind>(() => (isFeed.value ? 'feed' : isFolder.value ? 'folder' : isOfTable.value ? 'table' : 'query'))
const ASKED: Record<Kind, () => Asked> = {
  feed: () => ({ sql: further.value.trim() }),
  folder: () => ({ sql: `${choice.value === 'newest' ? '' : `${choice.value} `}${pattern.value.trim()}` }),
  table: () => ({ table: { name: table.value, columns: columns.value, where: where.value, orderBy: orderBy.value } }),
  query: () => ({
    sql: sql.value,
    ...(names.value.length > 0 && { values: Object.fromEntries(names.value.map((name) => [name, values[name] ?? ''])) }),
  }),
}
const TAKES: Record<Kind, string> = {
  feed: 'records of this feed',
  folder: 'file',
  table: 'rows of this table',
  query: 'rows of this query',
}
const AS_ROWS = 'It may only read. The rows are written down as JSON Lines at one moment, and that file is what is kept.'
const KEPT: Record<Kind, string> = {
  feed: 'Its pages are kept as they come, each a part of the delivery.',
  folder: 'A copy is taken when the file has rested, or its marker is there; the file stays where it is.',
  table: AS_ROWS,
  query: AS_ROWS,
}
const isSaid = computed(() => ({ feed: true, folder: pattern.value.trim() !== '', table: table.value !== '', query: sql.value.trim() !== '' })[kind.value])
function ask(): void {
  emit('ask', source.value, ASKED[kind.value]())
  // What was asked stays in the form, for whoever opens it again.
  isOpen.value = false
}
</script>

<template>
  <el-button v-if="!isOpen" @click="isOpen = true">Draw from a source</el-button>
  <form v-else class="query" @submit.prevent="ask">
    <div class="row">
      <label>
        Source
        <el-select v-model="source" size="small" :aria-label="`Source of the ${label.toLowerCase()}`">
          <el-option v-for="name in sources" :key="name" :value="name" :label="name" />
        </el-select>
      </label>
      <template v-if="isDatabase">
        <el-button size="small" :aria-pressed="isOfTable" @click="isOfTable = true">a table</el-button>
        <el-button size="small" :aria-pressed="!isOfTable" @click="isOfTable = false">a query</el-button>
      </template>
    </div>
    <label v-if="isFeed">
      Added to its address
      <el-input
        v-model="further"
        size="small"
        class="cell"
        :aria-label="`Added to the address for the ${label.toLowerCase()}`"
        placeholder="nothing; or a path or ?season=2026"
      />
    </label>
    <template v-else-if="isFolder">
      <label>
        Name of the file
        <el-input
          v-model="pattern"
          size="small"
          class="cell"
          :aria-label="`Name of the file of the ${label.toLowerCase()}`"
          :placeholder="choice === 'manifest' ? 'week_*.sha256' : 'old_*.csv'"
        />
      </label>
      <label>
        Taken is
        <el-select v-model="choice" size="small" :aria-label="`What is taken for the ${label.toLowerCase()}`">
          <el-option v-for="(name, one) in CHOICES" :key="one" :value="one" :label="name" />
        </el-select>
      </label>
    </template>
    <template v-else-if="isOfTable">
      <label>
        Table
        <el-select
          v-model="table"
          size="small"
          filterable
          :loading="tables.isPending.value"
          :aria-label="`Table of the ${label.toLowerCase()}`"
          placeholder="choose a table"
        >
          <el-option v-for="one in tables.data.value?.items" :key="one.name" :value="one.name" :label="one.name"
            >{{ one.name }}
            <span class="quiet">{{ one.kind === 'view' ? 'view' : '' }}{{ one.rows === null ? '' : ` about ${count(one.rows)} rows` }}</span></el-option
          >
        </el-select>
      </label>
      <template v-if="table !== ''">
        <label>
          Columns
          <el-select v-model="columns" size="small" multiple filterable :aria-label="`Columns of the ${label.toLowerCase()}`" placeholder="all of them">
            <el-option v-for="one in known.data.value?.items" :key="one.name" :value="one.name" :label="one.name"
              >{{ one.name }} <span class="quiet">{{ one.kind }}{{ one.isKey ? ', key' : '' }}</span></el-option
            >
          </el-select>
        </label>
        <label>
          Rows where
          <el-input
            v-model="where"
            size="small"
            class="cell"
            :aria-label="`Rows of the ${label.toLowerCase()} where`"
            placeholder="all; or a condition in SQL, such as season >= 2020"
          />
        </label>
        <label>
          In the order of
          <el-select v-model="orderBy" size="small" multiple filterable :aria-label="`Order of the ${label.toLowerCase()}`" placeholder="no order">
            <el-option v-for="one in known.data.value?.items" :key="one.name" :value="one.name" :label="one.name" />
          </el-select>
        </label>
      </template>
      <ErrorNote :error="tables.error.value ?? known.error.value" />
    </template>
    <textarea
      v-else
      v-model="sql"
      rows="4"
      spellcheck="false"
      class="cell"
      :aria-label="`Query for the ${label.toLowerCase()}`"
      placeholder="SELECT … FROM … WHERE season = :season ORDER BY …"
    ></textarea>
    <template v-if="kind === 'query'">
      <label v-for="name in names" :key="name">
        :{{ name }} is <el-input v-model="values[name]" size="small" class="cell" :aria-label="`Value of ${name}`" placeholder="blank" />
      </label>
    </template>
    <div class="row">
      <el-button native-type="submit" :loading="isBusy" :disabled="!isSaid">Take the {{ TAKES[kind] }}</el-button>
      <el-button link @click="isOpen = false">Not now</el-button>
    </div>
    <p class="quiet">{{ KEPT[kind] }}</p>
  </form>
</template>

<style scoped>
.row [aria-pressed='true'] {
  background: var(--ink);
  color: #fff;
}
.query {
  display: grid;
  gap: 6px;
  inline-size: 100%;
}
label,
.row {
  display: flex;
  gap: 8px;
  align-items: center;
}
label {
  flex: 1;
  min-inline-size: 0;
  white-space: nowrap;
}
textarea {
  border: 1px solid var(--edge);
  border-radius: 4px;
  padding: 4px 6px;
  background: var(--sheet);
  color: inherit;
  resize: vertical;
  white-space: pre-wrap;
}
p {
  margin: 0;
  font-size: 12px;
}
</style>
