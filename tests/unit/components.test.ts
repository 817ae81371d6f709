import { delay } from 'es-toolkit'
// @vitest-environment happy-dom
import 'fake-indexeddb/auto'
import { flushPromises, mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { computed, effectScope } from 'vue'
import { stagesOf } from '#core/resolved/resolve-session'
import type { GainControl } from '#core/chain/gain-control'
import { stripControls } from '#core/chain/gain-control'
import type { Finding } from '#core/checks/finding'
import { microphoneSpecs } from '#core/gear'
import ChoiceBar from '~/shared/fields/ChoiceBar.vue'
import NumberInput from '~/shared/fields/NumberInput.vue'
import FindingAction from '~/features/path/FindingAction.vue'
import { turnedGain } from '~/composables/turned'
import { useGainGesture } from '~/composables/use-gain-gesture'
import { useSessionStore } from '~/stores/session'
import { useViewStore } from '~/stores/view'
import { example1, valid } from '../support/sessions'

beforeEach(() => setActivePinia(createPinia()))

describe('one of a few, side by side', () => {
  const options = ['one', 'two', 'three'].map((value) => ({ value, text: value }))
  const bar = (chosen: string | null) =>
    mount(ChoiceBar, { props: { options, chosen, label: 'Which' }, attachTo: document.body })
  it('is a group of radio buttons with one stop for Tab: the chosen one, or the first', () => {
    expect(
      bar('two')
        .findAll('[role="radio"]')
        .map((each) => [each.attributes('aria-checked'), each.attributes('tabindex')]),
    ).toEqual([
      ['false', '-1'],
      ['true', '0'],
      ['false', '-1'],
    ])
    expect(
      bar(null)
        .findAll('[role="radio"]')
        .map((each) => each.attributes('tabindex')),
    ).toEqual(['0', '-1', '-1'])
    expect(bar(null).get('[role="radiogroup"]').attributes('aria-label')).toBe('Which')
  })
  it.each([
    ['ArrowRight', 'three', 'one'],
    ['ArrowDown', 'one', 'two'],
    ['ArrowLeft', 'one', 'three'],
    ['ArrowUp', 'three', 'two'],
  ])('%s from %s chooses %s, with the focus on it, and is no key of the page', async (key, from, to) => {
    const page = vi.fn()
    document.body.addEventListener('keydown', page)
    const wrapper = bar(from)
    await wrapper.get('[tabindex="0"]').trigger('keydown', { key })
    document.body.removeEventListener('keydown', page)
    expect(wrapper.emitted('choose')).toEqual([[to]])
    expect(document.activeElement?.textContent?.trim()).toBe(to)
    expect(page).not.toHaveBeenCalled()
  })
  it('other keys are left to the page', async () => {
    const wrapper = bar('one')
    await wrapper.get('[tabindex="0"]').trigger('keydown', { key: 'x' })
    expect(wrapper.emitted('choose')).toBeUndefined()
  })
})

describe('a number that is edited where it stands', () => {
  const commit = vi.fn((value: number | undefined) => (value === 666 ? 'Not this one.' : null))
  const field = () => mount(NumberInput, { props: { value: 200, field: microphoneSpecs.impedance, commit } })
  const typed = async (text: string) => {
    const wrapper = field()
    const input = wrapper.get('input')
    await input.setValue(text)
    await input.trigger('keydown', { key: 'Enter' })
    return wrapper
  }
  beforeEach(() => commit.mockClear())
  it('shows its value with its unit, and is named by both', () => {
    const wrapper = field()
    expect(wrapper.get('input').element.value).toBe('200')
    expect(wrapper.get('input').attributes('aria-label')).toBe('Impedance, Ω')
  })
  it('takes what is typed, units and all, on Enter', async () => {
    await typed('1.5k')
    expect(commit).toHaveBeenCalledExactlyOnceWith(1500)
  })
  it.each(['much', '-3', '10,000'])('refuses "%s" in words and keeps the last good value', async (text) => {
    const wrapper = await typed(text)
    expect(commit).not.toHaveBeenCalled()
    expect(wrapper.get('[role="alert"]').text()).toContain('Kept 200 Ω')
    expect(wrapper.get('input').attributes('aria-invalid')).toBe('true')
  })
  it('passes on the refusal of whoever keeps the value', async () => {
    expect((await typed('666')).get('[role="alert"]').text()).toContain('Not this one.')
  })
  it('Esc gives the old one back', async () => {
    const wrapper = field()
    const input = wrapper.get('input')
    await input.setValue('7')
    await input.trigger('keydown', { key: 'Escape' })
    expect(input.element.value).toBe('200')
    await input.trigger('blur')
    expect(commit).not.toHaveBeenCalled()
  })
  it('the arrow keys step, and stop at the ends of the range', async () => {
    const wrapper = field()
    await wrapper.get('input').trigger('keydown', { key: 'ArrowUp' })
    await flushPromises()
    expect(commit).toHaveBeenCalledExactlyOnceWith(200.5)
    const lowest = mount(NumberInput, {
      props: { value: microphoneSpecs.impedance.min, field: microphoneSpecs.impedance, commit },
    })
    commit.mockClear()
    await lowest.get('input').trigger('keydown', { key: 'ArrowDown' })
    await flushPromises()
    expect(commit).not.toHaveBeenCalled()
    expect(lowest.get('[role="alert"]').text()).toContain('range')
  })
})

/** The worked example 1 in the store, and the strip on the screen. */
async function opened() {
  const store = useSessionStore()
  await store.start(valid(example1()), 'Opened') // there is no storage here
  const view = useViewStore()
  await flushPromises()
  return { store, view }
}

describe('what a finding advises', () => {
  const finding = (more: Partial<Finding>): Finding => ({
    code: 'target-missed',
    severity: 'note',
    stage: 's3',
    message: 'Too quiet.',
    action: 'Turn it up.',
    ...more,
  })
  /** The button, once the fix is proven. */
  async function proven(more: Partial<Finding>) {
    const wrapper = mount(FindingAction, { props: { finding: finding(more) } })
    await delay(0)
    await flushPromises()
    return wrapper
  }
  it('without a change there is nothing to press', async () => {
    await opened()
    expect((await proven({})).find('button').exists()).toBe(false)
  })
  it('does it, names it in words, and says so', async () => {
    const { store } = await opened()
    const stage = store.session?.strips[0]?.stages[2]?.id ?? ''
    const changes = [
      { strip: store.session?.strips[0]?.id ?? '', stage, setting: 'gain', to: 39 },
    ] as Finding['changes']
    const wrapper = await proven({ changes })
    expect(wrapper.get('button').text()).toBe('Fix')
    await wrapper.get('button').trigger('click')
    expect(store.session?.strips[0]?.stages[2]?.settings.gain).toBe(39)
    expect(store.undoLabel).toBe('Fix: level off target')
    expect(wrapper.emitted('done')).toHaveLength(1)
  })
  it('changes nothing where the finding that stands now has no fix, though the button is still there', async () => {
    const { store } = await opened()
    const changes = [{ strip: 'x', stage: 'y', setting: 'gain', to: 39 }] as Finding['changes']
    const wrapper = await proven({ changes })
    const before = store.session
    await wrapper.setProps({ finding: finding({}) })
    await wrapper.get('button').trigger('click')
    expect(store.session).toBe(before)
    await delay(0)
    await flushPromises()
    expect(wrapper.find('button').exists()).toBe(false)
  })
  it('48 V is switched at the device: here it is only said to be done', async () => {
    await opened()
    const changes = [{ strip: 'x', stage: 'y', setting: 'phantom', to: false }] as Finding['changes']
    const wrapper = await proven({ code: 'phantom-unneeded', changes })
    expect(wrapper.get('button').text()).toBe('Done')
  })
})

describe('the gain by hand', () => {
  async function gesture() {
    const { store } = await opened()
    const control = computed(() => {
      const session = store.session as NonNullable<typeof store.session>
      const found = stripControls(stagesOf(session, session.strips[0] as never))[0] as GainControl
      return turnedGain('narrator', found)
    })
    const scope = effectScope()
    const made = scope.run(() => useGainGesture(control)) as ReturnType<typeof useGainGesture>
    const gain = () => store.session?.strips[0]?.stages[2]?.settings.gain
    return { ...made, store, gain, scope }
  }
  const key = (name: string, more: object = {}) =>
    new KeyboardEvent('keydown', { key: name, cancelable: true, ...more })

  it('a drag shows every value at once and keeps the last on release, as one step to undo', async () => {
    const { begin, drag, end, gain, store } = await gesture()
    begin()
    drag(3.2)
    expect(gain()).toBe(38)
    expect(store.undoLabel).toBeNull()
    drag(-100)
    expect(gain()).toBe(0)
    drag(4)
    end()
    expect(gain()).toBe(39)
    expect(store.undoLabel).toBe('Gain')
    store.undo()
    expect(gain()).toBe(35)
  })
  it('Esc takes a drag back', async () => {
    const { begin, drag, dragging, gain } = await gesture()
    begin()
    drag(9)
    window.dispatchEvent(key('Escape'))
    expect(dragging.value).toBe(false)
    expect(gain()).toBe(35)
  })
  it('so does leaving in the middle of it', async () => {
    const { begin, drag, gain, scope } = await gesture()
    begin()
    drag(9)
    scope.stop()
    expect(gain()).toBe(35)
  })
  it.each([
    ['ArrowUp', 36],
    ['ArrowDown', 34],
    ['PageUp', 41],
    ['PageDown', 29],
    ['Home', 0],
    ['End', 60],
  ])('%s sets %i dB and keeps it', async (name, expected) => {
    const made = await gesture()
    made.key(key(name))
    expect(made.gain()).toBe(expected)
    expect(made.store.undoLabel).toBe('Gain')
  })
  it('leaves keys alone that are another command', async () => {
    const made = await gesture()
    const event = key('ArrowUp', { altKey: true })
    made.key(event)
    expect(made.gain()).toBe(35)
    expect(event.defaultPrevented).toBe(false)
  })
})
