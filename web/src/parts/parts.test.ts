// @vitest-environment jsdom
import { afterEach, describe, expect, it, vi } from 'vitest'
import { type App, type Component, createApp, h, nextTick } from 'vue'
import { createMemoryHistory, createRouter } from 'vue-router'
import { type Answer, askBefore } from '../foundation/commands/asking'
import AskPart from './AskPart.vue'
import CommandPanel from './CommandPanel.vue'
import ToCheck from '../screens/today/ToCheck.vue'

// Vuetify's own button is tried in the browser; here what is decided counts.
vi.mock('vuetify/lib/components/VBtn/index.js', async () => {
  const { defineComponent, h: make } = await import('vue')
  return {
    VBtn: defineComponent(
      (_, { slots }) =>
        () =>
          make('button', { type: 'button' }, slots.default?.()),
    ),
  }
})

const page = { render: () => null }
let app: App | null = null

/** A part on a page of its own, as it stands in the application. */
async function mount(part: Component, props: Record<string, unknown> = {}, slot?: () => unknown): Promise<HTMLElement> {
  const router = createRouter({
    history: createMemoryHistory(),
    routes: ['outline', 'dates', 'sections', 'elsewhere'].map((name) => ({
      path: `/editions/:edition/${name}`,
      name,
      component: page,
    })),
  })
  await router.push('/editions/2/elsewhere?at=2026-10-08T10:15')
  const root = document.createElement('div')
  document.body.append(root)
  app = createApp({ render: () => h(part, props, slot) })
  app.use(router)
  app.mount(root)
  await nextTick()
  return root
}

afterEach(() => {
  app?.unmount()
  document.body.innerHTML = ''
})

const answer = (effect: string, act = ''): Answer => ({
  act,
  reach: { sentence: 'Disappears in all 4 sections.', effect },
})
const press = async (root: HTMLElement, words: string) => {
  const found = [...root.querySelectorAll('button')].find((button) => button.textContent?.trim() === words)
  expect(found, words).toBeDefined()
  found!.click()
  await nextTick()
}

describe('what is asked before it is done', () => {
  it('says it in a sentence and a button in numbers; what takes something is not done by Enter alone', async () => {
    const root = await mount(AskPart)
    expect(root.querySelector('[role=alertdialog]')).toBeNull()
    const done = askBefore(answer('takes', 'Take 1 item from 91 students'))
    await nextTick()
    await nextTick()
    expect(root.querySelector('#what-it-does')!.textContent).toBe('Disappears in all 4 sections.')
    expect(document.activeElement!.textContent).toBe('Leave it as it is')
    await press(root, 'Take 1 item from 91 students')
    expect(await done).toBe(true)
    expect(root.querySelector('[role=alertdialog]')).toBeNull()
  })

  it('has the focus on doing it where nothing is taken, and Escape leaves it', async () => {
    const root = await mount(AskPart)
    const done = askBefore(answer('some'))
    await nextTick()
    await nextTick()
    expect(document.activeElement!.textContent).toBe('Do it')
    root.querySelector('[role=alertdialog]')!.dispatchEvent(new KeyboardEvent('keydown', { key: 'Escape' }))
    expect(await done).toBe(false)
  })

  it('is one at a time: another asked meanwhile leaves the first', async () => {
    await mount(AskPart)
    const [first, second] = [askBefore(answer('some')), askBefore(answer('takes', 'Take it'))]
    expect(await first).toBe(false)
    await nextTick()
    await press(document.body, 'Leave it as it is')
    expect(await second).toBe(false)
  })

  it('names on demand who keeps, loses and has begun it, and how many more there are', async () => {
    const root = await mount(AskPart)
    const one = { section: '9 Alder', gains: [], loses: [], overdue: [], moves: [], begun: [], keeps: [] }
    const named = vi.fn(() =>
      Promise.resolve({
        reach: {
          students: [
            { ...one, name: 'Imke Osei', keeps: ['2.12 Isobars'] },
            { ...one, name: 'Davit Lindqvist', loses: ['2.12 Isobars'], begun: ['2.12 Isobars'] },
          ],
          others: 3,
        },
      }),
    )
    void askBefore(answer('takes', 'Take it'), named)
    await nextTick()
    expect(named).not.toHaveBeenCalled()
    await press(root, 'Show names')
    await vi.waitFor(() => expect(root.querySelectorAll('li')).toHaveLength(2))
    // All of it is about one thing, which the sentence has named.
    expect([...root.querySelectorAll('li')].map((line) => line.textContent!.replace(/\s+/g, ' ').trim())).toEqual([
      'Imke Osei 9 Alder keeps it',
      'Davit Lindqvist 9 Alder loses it has begun it',
    ])
    expect(root.textContent).toContain('and 3 more whom you do not teach.')
    await press(root, 'Leave it as it is')
  })
})

describe('a panel of what is about to be changed', () => {
  const panel = { label: 'One class', problem: null, reach: 'Nothing changes for anyone.', meant: 'Move it there' }

  it('does what is meant on submit, not while it cannot, and Escape closes it', async () => {
    const [submit, close] = [vi.fn(), vi.fn()]
    for (const disabled of [true, false]) {
      const root = await mount(CommandPanel, { ...panel, disabled, onSubmit: submit, onClose: close })
      root.querySelector('form')!.dispatchEvent(new Event('submit', { cancelable: true }))
      expect(submit).toHaveBeenCalledTimes(disabled ? 0 : 1)
      root.querySelector('aside')!.dispatchEvent(new KeyboardEvent('keydown', { key: 'Escape' }))
      app!.unmount()
    }
    expect(close).toHaveBeenCalledTimes(2)
  })

  it('shows what is wrong with what was kept and what to do, and gives the focus back when it closes', async () => {
    const opener = document.createElement('button')
    document.body.append(opener)
    opener.focus()
    const problem = {
      status: 409,
      code: 'changed-meanwhile',
      title: 'Somebody changed this.',
      detail: 'Yours is kept.',
    }
    const root = await mount(CommandPanel, { ...panel, disabled: false, problem }, () => h('input', { autofocus: '' }))
    expect(root.querySelector('[role=alert]')!.textContent).toContain('Yours is kept.')
    expect(document.activeElement).toBe(root.querySelector('input'))
    app!.unmount()
    app = null
    expect(document.activeElement).toBe(opener)
  })
})

describe('what is to check', () => {
  const mend = { words: 'mend it', screen: null, section: null, item: null, field: null, row: null }
  const linkOf = async (to: object) => {
    const root = await mount(ToCheck, {
      edition: 2,
      checks: [{ words: 'Something is off.', mend: { ...mend, ...to } }],
    })
    return root.querySelector('a')?.getAttribute('href') ?? null
  }

  it.each([
    [
      { screen: 'dates', section: 3, item: 12, field: 'due' },
      '/editions/2/dates?at=2026-10-08T10:15&section=3&item=12&field=due',
    ],
    [{ screen: 'outline', row: 'item-12' }, '/editions/2/outline?at=2026-10-08T10:15&row=item-12'],
    [
      { screen: 'sections', section: 3, field: 'lessons', row: 'lesson-7' },
      '/editions/2/sections?at=2026-10-08T10:15&section=3&shows=lessons&row=lesson-7',
    ],
    [{}, null],
  ])('leads for %j to %s, at the moment in view', async (to, href) => expect(await linkOf(to)).toBe(href))

  it('shows what has one remedy once, and says how many more there are like it', async () => {
    const checks = [1, 2, 3].map((n) => ({ words: `Check ${n}.`, mend }))
    const root = await mount(ToCheck, { edition: 2, checks })
    expect(root.querySelectorAll('li')).toHaveLength(1)
    expect(root.textContent).toContain('and 2 more like this')
    expect(root.querySelector('[title]')?.getAttribute('title')).toBe('Check 2.\nCheck 3.')
  })

  it('shows the first three, and the others on demand', async () => {
    const checks = [1, 2, 3, 4, 5].map((n) => ({ words: `Check ${n}.`, mend: { ...mend, words: `Remedy ${n}` } }))
    const root = await mount(ToCheck, { edition: 2, checks })
    expect(root.querySelectorAll('li')).toHaveLength(3)
    await press(root, 'and 2 more to check')
    expect(root.querySelectorAll('li')).toHaveLength(5)
  })
})
