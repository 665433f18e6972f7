<script setup lang="ts">
import { ref } from 'vue'
import { useRouter } from 'vue-router'
import { useAnswer } from '../../foundation/useAnswer'
import { useViewpoint } from '../../foundation/useViewpoint'
import { counted } from '../../foundation/words'
import ProblemNote from '../../parts/ProblemNote.vue'
import FilePart from './FilePart.vue'
import RollOverForm from './RollOverForm.vue'
import { useEnding } from './useEnding'
import { useRollOver } from './useRollOver'
import DateField from '../../parts/fields/DateField.vue'
import { questions } from '../../foundation/api/questions'

/** Next term, last term? The editions of the course, and making the next one. */
const props = defineProps<{ edition: number }>()

const router = useRouter()
const viewpoint = useViewpoint()
const editions = useAnswer(() => questions.editions(props.edition, viewpoint.query.value))
const rolling = useRollOver(props.edition, () => editions.data.value)
const asking = ref(false)
const stateWords: Record<string, string> = { draft: 'coming', current: 'current', resting: 'past' }
const ending = useEnding()
/** Which edition is being ended, and its last day; empty: now. */
const ends = ref<{ edition: number; on: string | null } | null>(null)

async function go(): Promise<void> {
  const next = await rolling.rollOver()
  if (next) await router.push({ name: 'dates', params: { edition: next } })
}

async function back(which: number): Promise<void> {
  const origin = await rolling.takeBack(which)
  asking.value = false
  if (origin) await router.push({ name: 'editions', params: { edition: origin } })
}
</script>

<template>
  <main class="body">
    <ProblemNote
      v-if="editions.problem.value && !editions.data.value"
      :problem="editions.problem.value"
      :again="editions.refetch"
    />
    <p v-else-if="!editions.data.value" class="second" role="status">Reading …</p>
    <template v-else>
      <section aria-label="Editions of this course">
        <ul class="ruled editions">
          <li v-for="one in editions.data.value.editions" :key="one.id">
            <span>
              <b v-if="one.isThis">{{ one.title }}</b>
              <router-link v-else :to="{ name: 'outline', params: { edition: one.id } }">{{ one.title }}</router-link>
            </span>
            <span class="second">{{ stateWords[one.state] }}</span>
            <span class="second">{{ one.term }}, {{ one.dates }}</span>
            <span class="second">{{ counted(one.sections, 'section') }}</span>
            <span>
              <template v-if="one.canTakeBack">
                <button v-if="!asking" type="button" class="word-button" @click="asking = true">
                  undo the roll-over
                </button>
                <template v-else>
                  <v-btn :disabled="rolling.busy.value" @click="back(one.id)">Undo it and remove that edition</v-btn>
                  <button type="button" class="word-button" @click="asking = false">keep it</button>
                </template>
              </template>
              <template v-if="one.canEnd && one.isThis">
                <form v-if="ends" class="ends" @submit.prevent="ending.end(one.id, ends.on || null)">
                  <span>after</span>
                  <DateField v-model="ends.on" label="Last day (leave empty to end it now)" placeholder="today" />
                  <v-btn type="submit" :disabled="ending.busy.value">{{
                    ends.on ? 'End it that day' : 'End it now'
                  }}</v-btn>
                  <button type="button" class="word-button" @click="ends = null">cancel</button>
                </form>
                <template v-else-if="one.endsOn">
                  ends after {{ one.endsOn }}
                  <button type="button" class="word-button" @click="ending.resume(one.id)">cancel that</button>
                </template>
                <button v-else type="button" class="word-button" @click="ends = { edition: one.id, on: '' }">
                  end this edition
                </button>
              </template>
              <button v-if="one.canResume" type="button" class="word-button" @click="ending.resume(one.id)">
                make it current again
              </button>
            </span>
          </li>
        </ul>
      </section>
      <ProblemNote v-if="rolling.problem.value && !editions.data.value.canRollOver" :problem="rolling.problem.value" />
      <ProblemNote v-if="ending.problem.value" :problem="ending.problem.value" />
      <RollOverForm v-if="editions.data.value.canRollOver" :answer="editions.data.value" :rolling="rolling" @go="go" />
      <p v-else class="second none">Only the course’s lead can roll it over, and only the current edition.</p>
      <FilePart :edition="edition" :answer="editions.data.value" />
    </template>
  </main>
</template>

<style scoped>
.body {
  position: relative;
  min-height: 0;
  overflow: auto;
  border-top: var(--stroke-hair) solid var(--ink);
  padding-bottom: var(--space-9);
}
.editions li {
  display: grid;
  grid-template-columns: 160px 100px 340px 110px 1fr;
  align-items: baseline;
  gap: var(--space-6);
  padding: var(--space-4) 0;
}
.none {
  padding: var(--space-7) 0;
}
.ends {
  display: flex;
  align-items: baseline;
  gap: var(--space-5);
}
</style>
