<script setup lang="ts">
import { computed, ref } from 'vue'
import { useRoute } from 'vue-router'
import { usePageKeys } from '@/composables/useShortcuts'
import { useSession } from '@/composables/useSession'
import { fileOf, useSendWorkbooks } from '@/composables/useWorkbooks'
import KeyboardDialog from '@/parts/KeyboardDialog.vue'
import LoadState from '@/parts/LoadState.vue'
import FirstPersonPage from '@/stations/access/FirstPersonPage.vue'
import SignInAgain from '@/stations/access/SignInAgain.vue'
import SignInPage from '@/stations/access/SignInPage.vue'

const route = useRoute()
const { data: session, error, isPending, refetch } = useSession()
const isSignedIn = computed(() => session.value?.person != null)
const isShowingKeys = ref(false)
usePageKeys({ '?': () => (isShowingKeys.value = true) })
useSendWorkbooks(
  () => isSignedIn.value,
  (workbook) => {
    const link = document.createElement('a')
    link.href = fileOf(workbook)
    link.download = workbook.name
    link.click()
  },
)
</script>

<template>
  <LoadState :is-loading="isPending" :error="error" what="Nine Tally" @retry="refetch()">
    <template v-if="isSignedIn || route.meta.isOpen">
      <RouterView />
      <KeyboardDialog v-model="isShowingKeys" />
      <SignInAgain v-if="isSignedIn" />
    </template>
    <FirstPersonPage v-else-if="session?.needsFirstPerson" />
    <SignInPage v-else />
  </LoadState>
</template>
