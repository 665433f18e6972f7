<script setup lang="ts">
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { type Schemas, api, ask, once } from '../../foundation/api/client'
import { questions } from '../../foundation/api/questions'
import { useLook } from '../../foundation/commands/useLook'
import { useSend } from '../../foundation/commands/useSend'
import { keys } from '../../foundation/keys'
import { useAnswer } from '../../foundation/useAnswer'
import { joined } from '../../foundation/words'
import PlainPage from '../../parts/PlainPage.vue'
import ProblemNote from '../../parts/ProblemNote.vue'
import MemberForm from './MemberForm.vue'
import { acts, mayWords, roleWords, roles } from './roles'

/** Who is on the team of a course, and what each of them may do. */
const props = defineProps<{ edition: number }>()

type Member = Schemas['TeamMember']
const router = useRouter()
const team = useAnswer(() => questions.team(props.edition))
const known = computed(() => team.data.value)
const open = ref<Member | 'new' | null>(null)
const ending = ref<Member | null>(null)
const said = ref('')
const taughtBy = (member: Member) =>
  joined((known.value?.sections ?? []).filter((section) => member.teaches.includes(section.id)).map((one) => one.name))
const isYou = (member: Member) => member.person === known.value?.you
const readsOnly = computed(() => known.value?.members.find(isYou)?.role === 'reader')

const path = computed(() => ({ edition: props.edition }))
const leaving = computed(() => (ending.value ? { person: ending.value.person } : null))
const look = useLook(leaving, (body, signal) =>
  ask(
    api.POST('/api/editions/{edition}/end-team-member', {
      params: { path: path.value, query: { preview: true } },
      body,
      signal,
    }),
  ),
)
const end = useSend(
  (body: Schemas['EndTeamMemberRequest'], key) =>
    ask(api.POST('/api/editions/{edition}/end-team-member', { params: { path: path.value, header: once(key) }, body })),
  [keys.edition(props.edition), keys.places],
)

async function takeOff(): Promise<void> {
  const member = ending.value
  const answer = member && (await end.run({ person: member.person }))
  if (!answer) return
  ending.value = null
  said.value = answer.sentence
  if (isYou(member)) await router.push({ name: 'places' })
}

function changed(sentence: string): void {
  open.value = null
  said.value = sentence
}
</script>

<template>
  <PlainPage>
    <section aria-labelledby="team-title">
      <div class="head">
        <h1 id="team-title">Team</h1>
        <router-link v-if="known?.members.some(isYou)" :to="{ name: 'today', params: { edition } }"
          >{{ known.course }}, {{ known.edition }}</router-link
        >
        <span v-else-if="known">{{ known.course }}, {{ known.edition }}</span>
        <button v-if="known?.canChange && open !== 'new'" type="button" class="word-button end" @click="open = 'new'">
          add somebody
        </button>
      </div>
      <ProblemNote v-if="team.problem.value && !known" :problem="team.problem.value" :again="team.refetch" />
      <p v-else-if="!known" class="second" role="status">Reading the team …</p>
      <template v-else>
        <MemberForm
          v-if="open === 'new'"
          :edition="edition"
          :sections="known.sections"
          :member="null"
          @done="changed"
          @close="open = null"
        />
        <p v-if="said" class="said" role="status">{{ said }}</p>
        <ul class="ruled">
          <li v-for="member in known.members" :key="member.person">
            <div class="row">
              <b>{{ member.name }}</b>
              <span class="second">{{ member.email }}</span>
              <span>{{ roleWords[member.role] }}</span>
              <span class="second">{{ taughtBy(member) ? `teaches ${taughtBy(member)}` : 'teaches no section' }}</span>
              <span class="acts small">
                <span v-if="member.note" class="accent">{{ member.note }}</span>
                <button v-if="known.canChange" type="button" class="word-button" @click="open = member">
                  change<span class="said-only"> {{ member.name }}</span>
                </button>
                <button
                  v-if="known.canChange || (isYou(member) && !readsOnly)"
                  type="button"
                  class="word-button"
                  @click="ending = member"
                >
                  {{ isYou(member) ? 'leave the team' : 'take off the team'
                  }}<span class="said-only"> {{ member.name }}</span>
                </button>
              </span>
            </div>
            <MemberForm
              v-if="open !== null && open !== 'new' && open.person === member.person"
              :edition="edition"
              :sections="known.sections"
              :member="member"
              @done="changed"
              @close="open = null"
            />
            <form v-if="ending?.person === member.person" class="line" novalidate @submit.prevent="takeOff">
              <v-btn type="submit" class="meant" :disabled="end.busy.value || !look.answer.value">
                {{ isYou(member) ? 'Leave the team' : `Take ${member.name} off the team` }}
              </v-btn>
              <v-btn @click="ending = null">{{ isYou(member) ? 'Stay' : 'Keep them' }}</v-btn>
              <span class="small" role="status">{{ look.answer.value?.sentence }}</span>
              <ProblemNote
                v-if="end.problem.value ?? look.problem.value"
                :problem="(end.problem.value ?? look.problem.value)!"
              />
            </form>
          </li>
        </ul>
      </template>
    </section>
    <section aria-labelledby="may-title">
      <h2 id="may-title">Who may do what</h2>
      <table class="text-rows">
        <thead>
          <tr>
            <td></td>
            <th v-for="role in roles" :key="role" scope="col">{{ roleWords[role] }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="act in acts" :key="act.words">
            <th scope="row">{{ act.words }}</th>
            <td v-for="role in roles" :key="role" :class="{ second: act.may[role] === 'none' }">
              {{ mayWords[act.may[role]] }}
            </td>
          </tr>
        </tbody>
      </table>
      <p class="small">
        The office can change a team too, and says who is in which section; it cannot read a course. Changes made here
        take effect at once.
      </p>
    </section>
  </PlainPage>
</template>

<style scoped>
.head {
  display: flex;
  align-items: baseline;
  gap: var(--space-7);
  border-bottom: var(--stroke-hair) solid var(--ink);
}
.end {
  margin-left: auto;
}
.said {
  padding: var(--space-5) 0 0;
}
li {
  padding: var(--space-4) 0;
}
.row {
  display: grid;
  grid-template-columns: minmax(150px, 1fr) minmax(230px, 1.3fr) minmax(190px, 1fr) minmax(170px, 1.2fr) 190px;
  gap: var(--space-3) var(--space-6);
  align-items: baseline;
}
.row > * {
  overflow-wrap: anywhere;
}
b {
  font-weight: 600;
}
.acts,
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--space-3) var(--space-5);
}
.acts {
  justify-content: flex-end;
}
h2 {
  font: 600 var(--size-unit) / 1.3 var(--face-display);
  padding-bottom: var(--space-3);
}
table :is(th, td) {
  padding-block: var(--space-3);
  padding-right: var(--space-7);
}
table + .small {
  max-width: 760px;
  padding: var(--space-4) 0;
}
@media (max-width: 1000px) {
  .row {
    grid-template-columns: 1fr;
  }
}
</style>
