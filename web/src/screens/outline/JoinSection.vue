<script setup lang="ts">
import { computed, toRef } from 'vue'
import { api } from '../../foundation/api/client'
import { keys } from '../../foundation/keys'
import { useAnswer } from '../../foundation/useAnswer'
import { useEditionCommand } from '../../foundation/useEditionCommand'
import SectionKey from '../../look/marks/SectionKey.vue'

/** Adding a section of one’s own to the course. */
const props = defineProps<{ edition: number }>()

const joinable = useAnswer(
  computed(() => keys.ofEdition(props.edition, 'joinable', '')),
  () => api.GET('/api/editions/{edition}/joinable', { params: { path: { edition: props.edition } } }),
)
const join = useEditionCommand(toRef(props, 'edition'), '/api/editions/{edition}/join-section')
</script>

<template>
  <span v-if="joinable.data.value?.sections.length" class="join">
    <v-menu>
      <template #activator="{ props: opener }">
        <button v-bind="opener" type="button" class="word-button small">add a section</button>
      </template>
      <nav class="sheet" aria-label="Sections that follow nothing">
        <ul role="menu">
          <li v-for="section in joinable.data.value.sections" :key="section.section" role="none">
            <button
              role="menuitem"
              type="button"
              @click="join.run({ section: section.section, version: section.version }).catch(() => undefined)"
            >
              <SectionKey :letter="section.letter" :name="section.name" />
            </button>
          </li>
        </ul>
      </nav>
    </v-menu>
    <span v-if="join.problem.value" class="small accent" role="alert">{{ join.problem.value.title }}</span>
  </span>
</template>

<style scoped>
.sheet {
  padding: var(--space-3) 0;
}
.sheet button {
  display: block;
  width: 100%;
  padding: var(--space-3) var(--space-7);
}
.sheet button:hover {
  background: var(--faint-hair);
}
</style>
