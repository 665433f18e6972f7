<script setup lang="ts">
import { ref, toRef, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { useAnswer } from '../../foundation/useAnswer'
import { useEditionCommand } from '../../foundation/commands/useEditionCommand'
import SectionKey from '../../look/marks/SectionKey.vue'
import { questions } from '../../foundation/api/questions'

/** Adding a section of one’s own to the course. */
const props = defineProps<{ edition: number }>()

const joinable = useAnswer(() => questions.joinable(props.edition))
const opened = ref(false)
// Whoever is sent here to add one finds the list open.
const route = useRoute()
const router = useRouter()
watch(
  () => route.query.do,
  (what) => {
    if (what !== 'add-section') return
    opened.value = true
    void router.replace({ query: { ...route.query, do: undefined } })
  },
  { immediate: true },
)
const join = useEditionCommand(toRef(props, 'edition'), '/api/editions/{edition}/join-section')
</script>

<template>
  <span class="join">
    <v-menu v-model="opened">
      <template #activator="{ props: opener }">
        <button v-bind="opener" type="button" class="word-button small">add a section</button>
      </template>
      <nav class="sheet" aria-label="Sections that follow no course yet">
        <p v-if="joinable.data.value?.sections.length === 0" class="second none">
          Every section you teach follows a course already.
        </p>
        <ul v-else role="menu">
          <li v-for="section in joinable.data.value?.sections ?? []" :key="section.section" role="none">
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
.none {
  padding: var(--space-3) var(--space-7);
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
