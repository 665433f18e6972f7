<script setup lang="ts">
import { computed, toRef } from 'vue'
import type { Schemas } from '../../foundation/api/client'
import { useEditionCommand } from '../../foundation/commands/useEditionCommand'
import { useSchoolDays } from '../../foundation/dates/schoolDays'
import { useLevels } from '../../foundation/levels'
import { counted, joined } from '../../foundation/words'
import { plusDays } from '../../parts/calendarDays'
import ProblemNote from '../../parts/ProblemNote.vue'
import ChoiceField from '../../parts/fields/ChoiceField.vue'

/** What stands in the way of a section that is to follow, each with its mend on the spot. None of it forbids. */
const props = defineProps<{ edition: number; check: Schemas['JoinCheckAnswer']; from: string }>()
const homes = defineModel<{ student: number; section: number }[]>({ required: true })

type Double = Schemas['TwoSections']
const school = useSchoolDays()
const levels = useLevels()
const leave = useEditionCommand(toRef(props, 'edition'), '/api/editions/{edition}/leave-section')
const homeOf = (double: Double) => homes.value.find((home) => home.student === double.student)?.section ?? 0
const setHome = (double: Double, section: number) =>
  (homes.value = [
    ...homes.value.filter((home) => home.student !== double.student),
    ...(section ? [{ student: double.student, section }] : []),
  ])
const choices = (double: Double) => [
  { value: 0, title: 'say which is the home section' },
  { value: props.check.section, title: props.check.name },
  ...double.others.map((other) => ({ value: other.id, title: other.name })),
]
const end = (double: Double, section: number) =>
  leave
    .run({
      section,
      students: [double.student],
      last: props.from > school.value.first ? plusDays(props.from, -1) : props.from,
    })
    .catch(() => undefined)
const nothing = computed(
  () => props.check.doubles.length === 0 && props.check.lacks === 0 && props.check.strangers === 0,
)
</script>

<template>
  <section aria-labelledby="in-the-way">
    <h2 id="in-the-way" class="ruled-head">What stands in the way</h2>
    <p v-if="nothing" class="none">Nothing: it meets often enough, and nobody is in two sections.</p>
    <ul v-else class="ruled">
      <li v-for="double in check.doubles" :key="double.student">
        <p>
          <b>{{ double.name }}</b> is in {{ check.name }} and in {{ joined(double.others.map((other) => other.name)) }}.
        </p>
        <p class="line">
          <ChoiceField
            :model-value="homeOf(double)"
            :label="`Home section of ${double.name}`"
            :choices="choices(double)"
            @update:model-value="(id) => setHome(double, id)"
          />
          <span>decides their dates; or</span>
          <button
            v-for="other in double.others"
            :key="other.id"
            type="button"
            class="word-button"
            @click="end(double, other.id)"
          >
            end their place in {{ other.name }}
          </button>
        </p>
      </li>
      <li v-if="check.lacks > 0">
        <p>
          <b>{{ check.lacks }} {{ check.unit }}</b> too few for the whole course.
        </p>
        <p class="second">
          Once it follows: drop or shorten {{ levels.lesson.many }} for it on Sections, or add classes there. Until then
          the last {{ levels.lesson.many }} have no class.
        </p>
      </li>
      <li v-if="check.strangers > 0">
        <p>
          {{ counted(check.strangers, 'of its teachers is', 'of its teachers are') }} not on the team of the course.
        </p>
        <p class="second">
          They go on teaching it. To see the course they need to be on the team:
          <router-link :to="{ name: 'team', params: { edition } }">add them</router-link>.
        </p>
      </li>
    </ul>
    <ProblemNote v-if="leave.problem.value" :problem="leave.problem.value" />
  </section>
</template>

<style scoped>
h2 {
  font-size: var(--size-body);
}
li {
  display: grid;
  gap: var(--space-2);
  padding: var(--space-4) 0;
}
b {
  font-weight: 650;
}
.none {
  padding: var(--space-4) 0;
}
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--space-3) var(--space-5);
}
</style>
