<script setup lang="ts">
import { computed, ref } from 'vue'
import { counted } from '../../foundation/words'
import PlainPage from '../../parts/PlainPage.vue'
import ProblemNote from '../../parts/ProblemNote.vue'
import ChoiceField from '../../parts/fields/ChoiceField.vue'
import WordField from '../../parts/fields/WordField.vue'
import AddPeople from './AddPeople.vue'
import MadeLinks from './MadeLinks.vue'
import PersonLine from './PersonLine.vue'
import { type Act, type Only, type PersonRow, onlyWords } from './people'
import { usePeople } from './usePeople'

/** Who has an account here? The office’s: everybody, what they are, and how their account stands. */
const screen = usePeople()
const { answer, people, shown, words, only, opened, busy, problem, done, byMail, hasMail } = screen

const choices = (Object.keys(onlyWords) as Only[]).map((value) => ({ value, title: onlyWords[value] }))
const adding = ref(false)

/** So many are invited in one go. */
const MOST = 500
/** Those shown who have not set a password yet. */
const waiting = computed(() => shown.value.filter((person) => person.state === 'invited').slice(0, MOST))

async function add(newcomers: Parameters<typeof screen.add>[0]): Promise<void> {
  if (await screen.add(newcomers)) adding.value = false
}

function act(person: PersonRow, { does }: Act): void {
  const { name } = person
  switch (does) {
    case 'mail':
      return void screen.invite([person], true)
    case 'invite':
      return void screen.invite([person], false)
    case 'end-sessions':
      return void screen.endSessions(person, `${name} is signed out everywhere.`)
    case 'deactivate':
      return void screen.deactivate(person, `${name}’s account is deactivated. Everything they wrote is still there.`)
    case 'reactivate':
      return void screen.reactivate(person, `${name} can sign in again.`)
    case 'separate':
      return void screen.separate(person, `${name} has this account again, with everything that was in it.`)
    case 'teacher':
      return void screen.setRole(person, 'teacher', !person.teacher)
    case 'office':
      return void screen.setRole(person, 'office', !person.office)
  }
}
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
          v-model:by-mail="byMail"
          :has-mail="hasMail"
          :problem="problem"
          :busy="busy"
          :known="people.map((person) => person.email)"
          @add="add"
          @close="adding = false"
        />
        <ProblemNote v-else-if="problem" :problem="problem" />
        <MadeLinks v-if="done" :words="done.words" :links="done.links" />
        <p v-if="only === 'invited' && waiting.length > 1" class="many">
          <span>
            {{ counted(waiting.length, 'person', 'people') }} here {{ waiting.length === 1 ? 'has' : 'have' }} not set a
            password yet.
          </span>
          <v-btn v-if="hasMail" :disabled="busy" @click="screen.invite(waiting, true)">
            {{ busy ? 'Sending …' : `Mail ${waiting.length} links` }}
          </v-btn>
          <button type="button" class="word-button" :disabled="busy" @click="screen.invite(waiting, false)">
            {{ hasMail ? 'show the links instead' : `make ${waiting.length} links` }}
          </button>
        </p>
        <p v-if="shown.length === 0" class="second">Nobody matches this filter.</p>
        <ul v-else class="ruled">
          <PersonLine
            v-for="person in shown"
            :key="person.person"
            :person="person"
            :opened="opened === person.person"
            :busy="busy"
            :has-mail="hasMail"
            :people="people"
            @open="opened = opened === person.person ? null : person.person"
            @act="act(person, $event)"
            @gone="opened = null"
          />
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
.many {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--space-4) var(--space-6);
}
.end {
  margin-left: auto;
}
</style>
