<script setup lang="ts">
import type { Schemas } from '../../foundation/api/client'
import { checkWords } from './useChecks'

/** That something was noticed of what it stands beside; what it is, where it is pointed at and where it is only heard. */
defineProps<{ checks: readonly Schemas['RowCheck'][] }>()
</script>

<template>
  <span v-if="checks.length" class="mark" :title="checks.map(checkWords).join('\n')"
    ><span aria-hidden="true">?</span
    ><span class="said-only">to check: {{ checks.map(checkWords).join(' ') }}</span></span
  >
</template>

<style scoped>
.mark {
  color: var(--accent);
  font-weight: 650;
}
</style>
