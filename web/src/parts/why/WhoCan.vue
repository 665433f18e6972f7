<script setup lang="ts">
import { computed, ref } from 'vue'
import { questions } from '../../foundation/api/questions'
import { useAnswer } from '../../foundation/useAnswer'
import { useViewpoint } from '../../foundation/useViewpoint'
import { counted } from '../../foundation/words'
import ProblemNote from '../ProblemNote.vue'
import WhyLink from './WhyLink.vue'
import { useWhyKey } from './useWhyKey'

/** Who of each section can open an item, and why the others cannot: by reason, the largest group first. */
const props = defineProps<{ edition: number; item: number; title: string }>()

useWhyKey()
const viewpoint = useViewpoint()
const answer = useAnswer(() => questions.whoCan(props.edition, props.item, viewpoint.query.value))
const who = computed(() => answer.data.value)
/** The groups whose students are named. */
const named = ref<string[]>([])
const turn = (group: string) =>
  (named.value = named.value.includes(group) ? named.value.filter((one) => one !== group) : [...named.value, group])
</script>

<template>
  <div class="who">
    <ProblemNote v-if="answer.problem.value && !who" :problem="answer.problem.value" :again="answer.refetch" />
    <p v-else-if="!who" class="second" role="status">Finding out who can open it …</p>
    <p v-else-if="who.sections.length === 0" class="second">
      None of your students is in a section that follows the course.
    </p>
    <p v-if="who?.sections.length" class="small second">{{ who.at.words }}</p>
    <section v-for="section in who?.sections" :key="section.section" :aria-label="section.name">
      <p class="ruled-head">
        <b>{{ section.name }}</b>
      </p>
      <ul class="ruled">
        <li v-for="(group, at) in section.groups" :key="group.reason">
          <button
            type="button"
            class="word-button many"
            :aria-label="`${counted(group.students.length, 'student')} in ${section.name}: ${group.reason}`"
            :aria-expanded="named.includes(`${section.section} ${at}`)"
            @click="turn(`${section.section} ${at}`)"
          >
            {{ counted(group.students.length, 'student') }}
          </button>
          <span :class="{ second: group.canOpen }">{{ group.reason }}</span>
          <ul v-if="named.includes(`${section.section} ${at}`)" class="names small">
            <li v-for="one in group.students" :key="one.student">
              {{ one.name }}
              <WhyLink :edition="edition" :student="one.student" :item="item" :name="`${one.name}, ${title}`" />
            </li>
          </ul>
        </li>
      </ul>
    </section>
  </div>
</template>

<style scoped>
.who {
  display: grid;
  gap: var(--space-5);
}
.ruled > li {
  display: grid;
  grid-template-columns: 110px minmax(0, 1fr);
  gap: var(--space-2) var(--space-5);
  padding: var(--space-2) 0;
}
.many {
  justify-self: start;
}
.names {
  grid-column: 2;
  list-style: none;
  display: flex;
  flex-wrap: wrap;
  gap: var(--space-2) var(--space-6);
}
</style>
