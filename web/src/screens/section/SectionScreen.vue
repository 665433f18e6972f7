<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { api, ask, problemOf } from '../../foundation/api/client'
import { keys } from '../../foundation/keys'
import PlainPage from '../../parts/PlainPage.vue'
import ProblemNote from '../../parts/ProblemNote.vue'

const props = defineProps<{ section: number }>()

const section = useQuery({
  queryKey: computed(() => keys.section(props.section)),
  queryFn: () => ask(api.GET('/api/sections/{section}', { params: { path: { section: props.section } } })),
})
const problem = computed(() => (section.error.value ? problemOf(section.error.value) : null))
</script>

<template>
  <PlainPage>
    <ProblemNote v-if="problem" :problem="problem" />
    <p v-else-if="!section.data.value" class="second" role="status">Reading …</p>
    <template v-else>
      <section>
        <h1>{{ section.data.value.course ?? section.data.value.name }}</h1>
        <dl>
          <dt>Section</dt>
          <dd>{{ section.data.value.name }}</dd>
          <dt>Term</dt>
          <dd>{{ section.data.value.term }}, {{ section.data.value.dates }}</dd>
          <dt>{{ section.data.value.teachers.length === 1 ? 'Teacher' : 'Teachers' }}</dt>
          <dd>{{ section.data.value.teachers.join(', ') || 'none yet' }}</dd>
        </dl>
      </section>
    </template>
  </PlainPage>
</template>

<style scoped>
dl {
  display: grid;
  grid-template-columns: 100px 1fr;
  gap: var(--space-4) var(--space-7);
  border-top: var(--stroke-hair) solid var(--faint-hair);
  padding-top: var(--space-5);
  width: min(640px, 100%);
}
dt {
  color: var(--ink-2);
}
</style>
