import { mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it } from 'vitest'
import { ref } from 'vue'
import NotationField from '../src/ui/NotationField.vue'
import { rulerSpan } from '../src/ui/ruler.ts'
import { understand } from '../src/ui/understand.ts'

beforeEach(() => setActivePinia(createPinia()))

function field(dialPerTurnMm?: number) {
  const text = ref('')
  const wrapper = mount(NotationField, {
    props: {
      label: 'Reading',
      kind: 'backlash',
      unit: 'mm',
      dialPerTurnMm,
      modelValue: '',
      'onUpdate:modelValue': (v: string) => {
        text.value = v
        void wrapper.setProps({ modelValue: v })
      },
    },
  })
  const enter = async (value: string) => {
    await wrapper.get('input.text').setValue(value)
    await wrapper.get('form').trigger('submit')
  }
  return { wrapper, enter }
}

describe('the notation field', () => {
  it('shows both unit systems before Enter, and enters the text as typed', async () => {
    const { wrapper, enter } = field()
    await enter('16t')
    expect(wrapper.get('.said').text()).toBe('0.406 mm · 16.0 t')
    expect(wrapper.emitted('enter')).toEqual([[{ text: '16t', confirmed: false }]])
  })
  it('enters nothing that is not understood', async () => {
    const { wrapper, enter } = field()
    await enter('16q')
    expect(wrapper.get('.said').text()).toContain('character 3 "q"')
    expect(wrapper.emitted('enter')).toBeUndefined()
    expect(wrapper.get('input.text').attributes('aria-invalid')).toBe('true')
  })
  it('takes a doubtful value at the second Enter only, and forgets the first when the text changes', async () => {
    const { wrapper, enter } = field()
    await enter('13')
    expect(wrapper.emitted('enter')).toBeUndefined()
    await enter('14')
    expect(wrapper.emitted('enter')).toBeUndefined()
    await wrapper.get('form').trigger('submit')
    expect(wrapper.emitted('enter')).toEqual([[{ text: '14', confirmed: true }]])
  })
  it('asks about a shim that its place cannot hold, offers what is most likely meant, and takes no impossible one', async () => {
    const { wrapper, enter } = field()
    await wrapper.setProps({ kind: 'shim-piece', unit: 'in', limits: { min: 0, max: 3 } })
    await enter('22')
    await wrapper.get('form').trigger('submit')
    await wrapper.get('form').trigger('submit')
    expect(wrapper.emitted('enter')).toBeUndefined()
    expect(wrapper.get('.said').text()).toContain('558.8 mm')
    await wrapper.get('button.texty').trigger('click')
    expect(wrapper.emitted('enter')).toEqual([[{ text: '22t', confirmed: false }]])
    // what could be, but not here, is asked about
    await enter('.2')
    expect(wrapper.text()).toContain('This place takes 0 mm')
    expect(wrapper.emitted('enter')).toHaveLength(1)
  })
  it('says when Enter came on an empty field', async () => {
    const { wrapper, enter } = field()
    await enter('  ')
    expect(wrapper.emitted('blank')).toHaveLength(1)
  })
  it('counts turns with the dial of the gauge, and without one says so', async () => {
    const { wrapper, enter } = field(1)
    await enter('2r 35h')
    expect(wrapper.emitted('enter')).toEqual([[{ text: '2r 35h', confirmed: false }]])
    expect(understand('2r 35h', 'mm', 'backlash')).toMatchObject({
      state: 'not',
      why: expect.stringContaining('no dial'),
    })
  })
})

describe('the window ruler', () => {
  it('shows the window with room, and whatever lies outside it', () => {
    expect(rulerSpan({ min: 1, max: 2 }, [])).toEqual({ from: 0.5, to: 2.5 })
    const span = rulerSpan({ min: 1, max: 2 }, [{ value: 5, U: 0.5 }])
    expect(span.from).toBe(0.5)
    expect(span.to).toBeGreaterThan(5.5)
  })
  it('starts at zero where only a largest value is given', () => {
    const span = rulerSpan({ max: 0.9 }, [{ value: 0.5, U: 0.02 }])
    expect(span.from).toBe(0)
    expect(span.to).toBeGreaterThan(0.9)
  })
})
