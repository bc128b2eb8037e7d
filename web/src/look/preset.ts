import { definePreset } from '@primeuix/themes'
import Aura from '@primeuix/themes/aura'

/**
 * Moray's own look on top of the component library: paper and ink, square corners, hairlines, one lamp colour.
 * Colours come from look.css, so that day and night are switched in one place.
 */
const ink = 'var(--ink)'
const field = {
  background: 'var(--sheet)',
  disabledBackground: 'var(--paper)',
  filledBackground: 'var(--sheet)',
  filledHoverBackground: 'var(--sheet)',
  filledFocusBackground: 'var(--sheet)',
  borderColor: 'var(--line-strong)',
  hoverBorderColor: ink,
  focusBorderColor: ink,
  invalidBorderColor: 'var(--out)',
  color: ink,
  disabledColor: 'var(--ink-soft)',
  placeholderColor: 'var(--ink-soft)',
  iconColor: 'var(--ink-soft)',
  shadow: 'none',
}
const surfaces = {
  primary: {
    color: ink,
    contrastColor: 'var(--paper)',
    hoverColor: 'var(--ink-soft)',
    activeColor: ink,
  },
  highlight: {
    background: 'var(--lamp-soft)',
    focusBackground: 'var(--lamp-soft)',
    color: ink,
    focusColor: ink,
  },
  formField: field,
  text: { color: ink, hoverColor: ink, mutedColor: 'var(--ink-soft)', hoverMutedColor: ink },
  content: {
    background: 'var(--sheet)',
    hoverBackground: 'var(--lamp-soft)',
    borderColor: 'var(--line)',
    color: ink,
    hoverColor: ink,
  },
  overlay: {
    select: { background: 'var(--sheet)', borderColor: 'var(--line-strong)', color: ink },
    popover: { background: 'var(--sheet)', borderColor: 'var(--line-strong)', color: ink },
    modal: { background: 'var(--sheet)', borderColor: 'var(--line-strong)', color: ink },
  },
  list: {
    option: {
      focusBackground: 'var(--lamp-soft)',
      selectedBackground: 'var(--lamp-soft)',
      selectedFocusBackground: 'var(--lamp-soft)',
      color: ink,
      focusColor: ink,
      selectedColor: ink,
      selectedFocusColor: ink,
    },
  },
  mask: { background: 'rgba(10, 16, 20, 0.55)', color: ink },
}

export const morayPreset = definePreset(Aura, {
  primitive: {
    borderRadius: { none: '0', xs: '0', sm: '1px', md: '1px', lg: '1px', xl: '2px' },
  },
  semantic: {
    transitionDuration: '0.08s',
    focusRing: { width: '3px', style: 'solid', color: 'var(--focus)', offset: '1px', shadow: 'none' },
    disabledOpacity: '0.55',
    formField: { paddingX: '0.75rem', paddingY: '0.6rem', borderRadius: '1px' },
    list: { option: { padding: '0.7rem 0.85rem' } },
    overlay: {
      select: { borderRadius: '1px', shadow: '0 6px 18px rgba(10,16,20,.28)' },
      modal: { borderRadius: '2px' },
    },
    colorScheme: { light: surfaces, dark: surfaces },
  },
  components: {
    datatable: {
      colorScheme: {
        light: { root: { borderColor: 'var(--line)' }, row: { stripedBackground: 'var(--paper)' } },
        dark: { root: { borderColor: 'var(--line)' }, row: { stripedBackground: 'var(--paper)' } },
      },
      headerCell: {
        background: 'transparent',
        hoverBackground: 'var(--lamp-soft)',
        color: 'var(--ink-soft)',
        padding: '0.5rem 0.6rem',
      },
      bodyCell: { padding: '0.45rem 0.6rem' },
    },
    dialog: { header: { padding: '1.1rem 1.25rem 0.4rem' }, content: { padding: '0.4rem 1.25rem 1rem' } },
    button: { root: { label: { fontWeight: '700' }, paddingX: '1.1rem', paddingY: '0.62rem' } },
  },
})
