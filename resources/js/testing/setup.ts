import { disableAutoUnmount, enableAutoUnmount } from '@vue/test-utils'
import { afterEach } from 'vitest'

// Files share what they load: nothing that one of them mounted may still ask the server while the next one runs.
disableAutoUnmount()
enableAutoUnmount(afterEach)
