<script setup lang="ts">
import { useMutation } from '@tanstack/vue-query'
import { computed, reactive, ref } from 'vue'
import { answer, api, type Schemas } from '@/api/client'
import ErrorNote from '@/parts/ErrorNote.vue'
import { databasePlaceOf } from '@/stations/access/databasePlace'
import { feedOf } from '@/stations/access/feed'
import FeedFields from '@/stations/access/FeedFields.vue'
import FileFields from '@/stations/access/FileFields.vue'
import { filePlaceOf } from '@/stations/access/filePlace'
import ServerFields from '@/stations/access/ServerFields.vue'

/** Where rows or files are drawn from, and how one comes in: tried before it is kept. */
const props = defineProps<{
  migration: number
  kept: Schemas['Connection'] | null
  kinds: Schemas['Connections']['kinds']
  files: string
}>()
const emit = defineEmits<{ kept: [] }>()
const settings = props.kept?.settings ?? {}
const entered = reactive({
  label: props.kept?.label ?? '',
  kind: props.kept?.kind ?? ('postgresql' as Schemas['SourceKind']),
  password: '',
  seconds: settings.seconds ?? null,
  rows: settings.rows ?? null,
})
const database = ref(databasePlaceOf(settings))
const feed = ref(feedOf(settings))
const filePlace = ref(filePlaceOf(settings))
const hasSecret = props.kept?.hasPassword ?? false
const kind = computed(() => props.kinds.find((one) => one.kind === entered.kind))
/** What is asked of a place, by how it is entered. */
const WAYS = { sqlite: 'file', feed: 'feed', folder: 'files', sftp: 'files', s3: 'files' } as const
const way = computed<'server' | 'file' | 'feed' | 'files'>(() => (entered.kind in WAYS ? WAYS[entered.kind as keyof typeof WAYS] : 'server'))
const body = computed<Schemas['ConnectionAsked']>(() => {
  const common = { ...entered, label: entered.label.trim() }
  if (way.value === 'feed') return { ...common, ...feed.value }
  if (way.value === 'files') return { ...common, ...filePlace.value }
  return { ...common, ...database.value, authority: database.value.encryption === 'verified' ? database.value.authority : null }
})
const path = { migration: props.migration }
const {
  data: greeted,
  isPending: isTrying,
  error: tryError,
  mutate: tryIt,
} = useMutation({ mutationFn: () => answer(api.POST('/migrations/{migration}/connection-trials', { params: { path }, body: body.value })) })
const {
  isPending: isKeeping,
  error: keepError,
  mutate: keepIt,
} = useMutation({
  mutationFn: () =>
    props.kept === null
      ? answer(api.POST('/migrations/{migration}/connections', { params: { path }, body: body.value }))
      : answer(api.PUT('/migrations/{migration}/connections/{connection}', { params: { path: { ...path, connection: props.kept.id } }, body: body.value })),
  onSuccess: () => emit('kept'),
})
/** What has to be entered before it can be tried. */
const needed = computed<string[]>(() => {
  const { host, user, bucket, region } = filePlace.value
  if (way.value === 'feed') return [feed.value.url]
  if (way.value === 'file') return [database.value.file]
  if (way.value === 'server') return [database.value.host, ...(entered.kind === 'odbc' ? [database.value.driver] : [])]
  return { sftp: [host, user], s3: [bucket, region, user] }[entered.kind as 'sftp' | 's3'] ?? []
})
const canTry = computed(() => [entered.label, ...needed.value].every((one) => one.trim() !== ''))
/** A password that is kept is not told, so only a new one can be tried by itself; keeping tries it in any case. */
const isTried = computed(() => props.kept === null || entered.password !== '' || ['sqlite', 'folder'].includes(entered.kind))
</script>

<template>
  <form class="form" @submit.prevent="keepIt()">
    <label>Name, by which it is known <el-input v-model="entered.label" aria-label="Name of the connection" maxlength="100" autocomplete="off" /></label>
    <label
      >Kind
      <el-select v-model="entered.kind" aria-label="Kind of source">
        <el-option v-for="one in kinds" :key="one.kind" :value="one.kind" :label="one.label" :disabled="!one.isThere"
          >{{ one.label }} <span v-if="!one.isThere" class="quiet">this machine lacks PHP's driver</span></el-option
        >
      </el-select>
    </label>
    <label v-if="way === 'file'" class="wide"
      >File, below {{ files }} <el-input v-model="database.file" aria-label="File of the database" class="cell" autocomplete="off"
    /></label>
    <ServerFields
      v-else-if="way === 'server'"
      v-model="database"
      v-model:secret="entered.password"
      :kind="entered.kind"
      :port="kind?.port ?? 0"
      :has-secret="hasSecret"
    />
    <FileFields v-else-if="way === 'files'" v-model="filePlace" v-model:secret="entered.password" :kind="entered.kind" :files="files" :has-secret="hasSecret" />
    <template v-else>
      <FeedFields v-model="feed" />
      <label
        >Token
        <el-input
          v-model="entered.password"
          type="password"
          aria-label="Token"
          autocomplete="new-password"
          :placeholder="hasSecret ? 'the one that is kept' : 'none'"
      /></label>
    </template>
    <label v-if="way !== 'files'"
      >Seconds that it may take
      <el-input-number v-model="entered.seconds" :min="1" :controls="false" placeholder="1800" aria-label="Seconds that a query may take" />
    </label>
    <label v-if="way === 'server' || way === 'file'"
      >Rows that it may give
      <el-input-number v-model="entered.rows" :min="1" :controls="false" placeholder="any number" aria-label="Rows that a query may give" />
    </label>
    <ErrorNote class="wide" :error="keepError ?? tryError" />
    <p v-if="greeted && !isTrying" class="wide" role="status">It can be entered: {{ greeted.greeting }}.</p>
    <span class="wide buttons">
      <el-button v-if="isTried" :disabled="!canTry" :loading="isTrying" @click="tryIt()">Try it</el-button>
      <el-button type="primary" native-type="submit" :disabled="!canTry" :loading="isKeeping">Try and keep it</el-button>
    </span>
  </form>
</template>

<style scoped>
@import './fields.css';
.form {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(220px, 1fr));
  gap: 10px 16px;
}
p {
  margin: 0;
  background: var(--mark);
  padding: 6px 10px;
}
.buttons {
  display: flex;
  gap: 8px;
  justify-content: flex-end;
}
</style>
