<script setup lang="ts">
import { computed, ref, toRef, watch } from 'vue'
import { useRouter } from 'vue-router'
import { questions } from '../../foundation/api/questions'
import { useEditionCommand } from '../../foundation/commands/useEditionCommand'
import { useReach } from '../../foundation/commands/useReach'
import { useSchoolDays } from '../../foundation/dates/schoolDays'
import { useAnswer } from '../../foundation/useAnswer'
import { useLevels } from '../../foundation/levels'
import { useSection } from '../../foundation/useSection'
import { counted } from '../../foundation/words'
import CommandPanel from '../../parts/CommandPanel.vue'
import ProblemNote from '../../parts/ProblemNote.vue'
import TitleBlock from '../../parts/TitleBlock.vue'
import ChoiceField from '../../parts/fields/ChoiceField.vue'
import DateField from '../../parts/fields/DateField.vue'
import InTheWay from './InTheWay.vue'
import WhatItHolds from './WhatItHolds.vue'

/** A section begins to follow the course: what stands in the way, what becomes of what it holds, and from which day. */
const props = defineProps<{ edition: number }>()

const levels = useLevels()
const school = useSchoolDays()
const router = useRouter()
const { section: inView, choose } = useSection()
const joinable = useAnswer(() => questions.joinable(props.edition))
const sections = computed(() => joinable.data.value?.sections ?? [])
const section = computed(() => sections.value.find((one) => one.section === inView.value) ?? sections.value[0] ?? null)
/** Until one is chosen: today, or when the term begins. */
const chosen = ref<string | null>()
const from = computed({
  get: () => {
    if (chosen.value !== undefined) return chosen.value
    const { today, first, last } = school.value
    return today > first && today <= last ? today : first
  },
  set: (day) => (chosen.value = day),
})
/** For students who are then in two sections: which decides. */
const homes = ref<{ student: number; section: number }[]>([])
watch(
  () => section.value?.section,
  () => (homes.value = []),
)
const check = useAnswer(() => questions.joinCheck(props.edition, section.value?.section ?? 0, from.value ?? ''), {
  enabled: computed(() => section.value !== null && from.value !== null),
})
const known = computed(() => check.data.value)
const edition = toRef(props, 'edition')
const join = useEditionCommand(edition, '/api/editions/{edition}/join-section')
const asked = computed(() =>
  known.value && from.value && known.value.section === section.value?.section
    ? { section: known.value.section, version: known.value.version, from: from.value, homes: homes.value }
    : null,
)
const reach = useReach(asked, (request, signal) => join.preview(request, signal))
const facts = computed(() => [
  sections.value.length === 0 ? 'no section to add' : `${counted(sections.value.length, 'section')} to add`,
])
const back = () => router.push({ name: 'outline', params: { edition: props.edition } })
async function send(): Promise<void> {
  const request = asked.value
  if (!request) return
  await join.run(request).then(
    () => router.push({ name: 'sections', params: { edition: props.edition }, query: { section: request.section } }),
    () => undefined,
  )
}
</script>

<template>
  <main class="body">
    <ProblemNote
      v-if="joinable.problem.value && !joinable.data.value"
      :problem="joinable.problem.value"
      :again="joinable.refetch"
    />
    <p v-else-if="!joinable.data.value" class="second" role="status">Reading your sections …</p>
    <p v-else-if="!section" class="second none">
      Every section you teach follows a course already. One that follows another can stop there first, on its own page
      of Sections: it keeps everything as its own.
    </p>
    <template v-else>
      <div class="all" tabindex="0" role="region" aria-label="The check">
        <p class="line">
          <ChoiceField
            :model-value="section.section"
            label="Which section"
            :choices="sections.map((one) => ({ value: one.section, title: one.name }))"
            @update:model-value="(id) => choose(id)"
          />
          <span>follows from</span>
          <DateField v-model="from" label="The first day" :min="school.first" :max="school.last" />
          <span class="small">{{
            known && known.notCounted > 0
              ? `${levels.item.counted(known.notCounted)} ${known.notCounted === 1 ? 'was' : 'were'} due before: overdue for nobody there`
              : ''
          }}</span>
        </p>
        <ProblemNote v-if="check.problem.value" :problem="check.problem.value" />
        <p v-else-if="!known" class="second" role="status">Looking at what stands in the way …</p>
        <div v-else class="two">
          <InTheWay v-model="homes" :edition="edition" :check="known" :from="from ?? school.today" />
          <WhatItHolds :check="known" />
        </div>
      </div>
      <CommandPanel
        label="The section follows"
        :problem="join.problem.value"
        :reach="reach"
        :meant="`Have ${section.name} follow`"
        :disabled="!asked || join.busy.value"
        @submit="send"
        @close="back"
      />
    </template>
  </main>
  <TitleBlock v-if="joinable.data.value" :edition="edition" :facts="facts" :can-change="true" />
</template>

<style scoped>
.body {
  display: grid;
  grid-template-rows: 1fr auto;
  min-height: 0;
}
.all {
  position: relative;
  overflow: auto;
  min-height: 0;
}
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--space-3) var(--space-5);
  padding-bottom: var(--space-6);
}
.none {
  padding: var(--space-5) 0;
  max-width: 700px;
}
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: var(--space-9);
  padding-bottom: var(--space-8);
}
@media (max-width: 900px) {
  .two {
    grid-template-columns: 1fr;
  }
}
</style>
