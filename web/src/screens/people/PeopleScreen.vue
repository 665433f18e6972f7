<script setup lang="ts">
import { ref } from 'vue'
import { counted } from '../../foundation/words'
import PlainPage from '../../parts/PlainPage.vue'
import ProblemNote from '../../parts/ProblemNote.vue'
import ChoiceField from '../../parts/fields/ChoiceField.vue'
import WordField from '../../parts/fields/WordField.vue'
import AddPeople from './AddPeople.vue'
import { type Only, type PersonRow, onlyWords, partOf, standingOf } from './people'
import { usePeople } from './usePeople'

/** Who has an account here? The office’s: everybody, what they are, and how their account stands. */
const screen = usePeople()
const { answer, people, shown, words, only, busy, problem, links, said } = screen

const choices = (Object.keys(onlyWords) as Only[]).map((value) => ({ value, title: onlyWords[value] }))
const adding = ref(false)
/** Whose account is looked at: what can be done with it stands under the row. */
const opened = ref<number | null>(null)

async function add(newcomers: Parameters<typeof screen.add>[0]): Promise<void> {
  if (await screen.add(newcomers)) adding.value = false
}
const deactivate = (person: PersonRow) =>
  screen.deactivate(person, `${person.name}’s account is deactivated. All they wrote is still there.`)
</script>

<template>
  <PlainPage>
    <section class="people" aria-labelledby="people-title">
      <h1 id="people-title">People</h1>
      <ProblemNote
        v-if="answer.problem.value && !answer.data.value"
        :problem="answer.problem.value"
        :again="answer.refetch"
      />
      <p v-else-if="!answer.data.value" class="second" role="status">Reading …</p>
      <template v-else>
        <p class="tools">
          <WordField v-model="words" label="Find a person" placeholder="name, address or section" />
          <ChoiceField v-model="only" label="Which people" :choices="choices" />
          <span class="small" role="status">{{
            shown.length === people.length
              ? counted(people.length, 'person', 'people')
              : `${shown.length} of ${counted(people.length, 'person', 'people')}`
          }}</span>
          <button type="button" class="word-button end" @click="adding = !adding">add people</button>
        </p>
        <AddPeople
          v-if="adding"
          :problem="problem"
          :busy="busy"
          :known="people.map((person) => person.email)"
          @add="add"
          @close="adding = false"
        />
        <ProblemNote v-else-if="problem" :problem="problem" />
        <div v-if="said" class="said" role="status">
          <p>{{ said }}</p>
          <template v-if="links.length">
            <p class="small">
              Pass {{ links.length === 1 ? 'this link' : 'these links' }} on: each is shown only now, works once, and
              for a day.
            </p>
            <ul>
              <li v-for="link in links" :key="link.email">
                <b>{{ link.name }}</b>
                <v-text-field
                  :model-value="link.address"
                  readonly
                  :aria-label="`The link for ${link.name}`"
                  @focus="($event.target as HTMLInputElement).select()"
                />
              </li>
            </ul>
          </template>
        </div>
        <p v-if="shown.length === 0" class="second">Nobody matches this filter.</p>
        <ul v-else class="ruled list">
          <li v-for="person in shown" :key="person.person" :class="{ away: person.state === 'deactivated' }">
            <button
              type="button"
              class="row"
              :aria-expanded="opened === person.person"
              @click="opened = opened === person.person ? null : person.person"
            >
              <b>{{ person.name }}</b>
              <span class="second">{{ person.email }}</span>
              <span>{{ partOf(person) }}</span>
              <span class="second">{{ standingOf(person) }}</span>
            </button>
            <p v-if="opened === person.person" class="acts small">
              <template v-if="person.state === 'deactivated'">
                <button
                  type="button"
                  class="word-button"
                  :disabled="busy"
                  @click="screen.reactivate(person, `${person.name}’s account is in use again.`)"
                >
                  reactivate
                </button>
                <span class="second">they cannot sign in; all they wrote is still there</span>
              </template>
              <template v-else>
                <button type="button" class="word-button" :disabled="busy" @click="screen.invite(person)">
                  {{ person.state === 'invited' ? 'new link' : 'link to set a new password' }}
                </button>
                <button
                  v-if="person.sessions > 0 && !person.oneself"
                  type="button"
                  class="word-button"
                  :disabled="busy"
                  @click="screen.endSessions(person, `${person.name} is signed out everywhere.`)"
                >
                  sign out everywhere ({{ person.sessions }})
                </button>
                <button
                  type="button"
                  class="word-button"
                  :disabled="busy"
                  @click="screen.setRole(person, 'teacher', !person.teacher)"
                >
                  {{ person.teacher ? 'not a teacher any more' : 'make a teacher' }}
                </button>
                <button
                  v-if="!person.oneself"
                  type="button"
                  class="word-button"
                  :disabled="busy"
                  @click="screen.setRole(person, 'office', !person.office)"
                >
                  {{ person.office ? 'remove from the office' : 'add to the office' }}
                </button>
                <button
                  v-if="!person.oneself"
                  type="button"
                  class="word-button"
                  :disabled="busy"
                  @click="deactivate(person)"
                >
                  deactivate
                </button>
                <span v-if="person.oneself" class="second">this is you</span>
              </template>
            </p>
          </li>
        </ul>
      </template>
    </section>
  </PlainPage>
</template>

<style scoped>
.people {
  display: grid;
  gap: var(--space-5);
}
h1 {
  border-bottom: var(--stroke-hair) solid var(--ink);
}
.tools {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--space-4) var(--space-7);
}
.tools > :first-child {
  flex: 0 0 240px;
}
.end {
  margin-left: auto;
}
.said {
  display: grid;
  gap: var(--space-3);
  padding: var(--space-5) var(--space-6);
  background: var(--sheet);
  border-left: var(--stroke-strong) solid var(--ink);
}
.said li {
  display: grid;
  grid-template-columns: 200px 1fr;
  align-items: baseline;
  gap: var(--space-5);
}
.said :deep(.v-text-field) {
  width: 100%;
}
.row {
  display: grid;
  grid-template-columns: minmax(160px, 1fr) minmax(220px, 1.3fr) minmax(220px, 1.6fr) 210px;
  gap: var(--space-3) var(--space-6);
  width: 100%;
  padding: var(--space-3) 0;
  text-align: left;
}
.row > * {
  overflow-wrap: anywhere;
}
b {
  font-weight: 600;
}
.row:hover b {
  text-decoration: underline;
  text-underline-offset: 3px;
}
.away .row b {
  font-weight: 400;
  color: var(--ink-2);
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: var(--space-3) var(--space-6);
  padding: 0 0 var(--space-4);
}
@media (max-width: 900px) {
  .row {
    grid-template-columns: 1fr;
  }
  .said li {
    grid-template-columns: 1fr;
  }
}
</style>
