import { ref } from 'vue'
import type { GlobalThemeOverrides } from 'naive-ui'

export type Theme = 'light' | 'dark'

const KEPT = 'evrix-theme'

/** The theme in force: chosen by the person, otherwise by their system. */
export const theme = ref<Theme>('light')

export function startTheme(): void {
  const chosen = localStorage.getItem(KEPT) as Theme | null
  useTheme(chosen ?? (matchMedia('(prefers-color-scheme: dark)').matches ? 'dark' : 'light'))
}

export function toggleTheme(): void {
  const next = theme.value === 'light' ? 'dark' : 'light'
  localStorage.setItem(KEPT, next)
  useTheme(next)
}

function useTheme(next: Theme): void {
  theme.value = next
  document.documentElement.dataset.theme = next
}

const LIGHT = {
  sheet: '#FFFDF8',
  line: '#8C8470',
  ink: '#17262B',
  soft: '#55656A',
  tide: '#1F7A7A',
  shoal: '#CFE3E1',
  faint: '#E9F1EF',
  deep: '#0F3A43',
  buoy: '#B8431F',
  on: '#FFFFFF',
}
const DARK = {
  sheet: '#172326',
  line: '#78898D',
  ink: '#EDF1EC',
  soft: '#A9B8B9',
  tide: '#5FB9B5',
  shoal: '#24494A',
  faint: '#1C3234',
  deep: '#2B8482',
  buoy: '#F0896A',
  on: '#04191B',
}

/** Naive UI in our colours, once; no screen overrides a component's colours. */
export function naiveTheme(current: Theme): GlobalThemeOverrides {
  const c = current === 'light' ? LIGHT : DARK
  return {
    common: {
      fontFamily: "'Atkinson Hyperlegible Next', system-ui, sans-serif",
      fontFamilyMono: "'Atkinson Hyperlegible Mono', ui-monospace, monospace",
      fontSize: '14px',
      borderRadius: '6px',
      primaryColor: c.tide,
      primaryColorHover: c.tide,
      primaryColorPressed: c.tide,
      primaryColorSuppl: c.tide,
      errorColor: c.buoy,
      errorColorHover: c.buoy,
      textColorBase: c.ink,
      textColor1: c.ink,
      textColor2: c.ink,
      textColor3: c.soft,
      placeholderColor: c.soft,
      bodyColor: c.sheet,
      cardColor: c.sheet,
      modalColor: c.sheet,
      popoverColor: c.sheet,
      inputColor: c.sheet,
      borderColor: c.line,
      dividerColor: c.line,
      hoverColor: c.faint,
      textColorDisabled: c.soft,
      inputColorDisabled: c.faint,
      actionColor: c.faint,
    },
    Input: { border: `1px solid ${c.line}`, color: c.sheet },
    InternalSelection: { border: `1px solid ${c.line}`, color: c.sheet, placeholderColor: c.soft, textColorDisabled: c.soft, colorDisabled: c.faint },
    InternalSelectMenu: { optionColorActive: c.shoal, optionColorPending: c.faint, optionTextColorActive: c.ink, optionCheckColor: c.tide },
  }
}
