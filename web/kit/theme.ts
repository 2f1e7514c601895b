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
  document.documentElement.dataset.theme = next
  theme.value = next
}

type Part = Record<string, string>

/** Naive UI in the colours of tokens.css, as they are in force; no screen overrides a component's colours. */
export function naiveTheme(): GlobalThemeOverrides {
  const tokens = getComputedStyle(document.documentElement)
  const c = (name: string) => tokens.getPropertyValue(`--${name}`).trim()
  // Without the sheet of tokens the component's own colours stay.
  if (!c('ink')) return {}
  const edge = `1px solid ${c('line-strong')}`
  const each = (names: string[], value: string): Part => Object.fromEntries(names.map((name) => [name, value]))
  const primary: Part = {
    ...each(['colorPrimary', 'colorHoverPrimary', 'colorPressedPrimary', 'colorFocusPrimary', 'colorDisabledPrimary'], c('button')),
    ...each(['textColorPrimary', 'textColorHoverPrimary', 'textColorPressedPrimary', 'textColorFocusPrimary', 'textColorDisabledPrimary'], c('on-button')),
    ...each(['borderPrimary', 'borderHoverPrimary', 'borderPressedPrimary', 'borderFocusPrimary', 'borderDisabledPrimary'], `1px solid ${c('button')}`),
    ...each(['textColorTextPrimary', 'textColorTextHoverPrimary', 'textColorTextPressedPrimary', 'textColorTextFocusPrimary'], c('tide-text')),
  }
  const plain: Part = {
    ...each(['color', 'colorFocus', 'colorDisabled'], c('sheet')),
    ...each(['colorHover', 'colorPressed'], c('shoal-faint')),
    ...each(['textColorHover', 'textColorPressed', 'textColorFocus', 'textColorTextHover', 'textColorTextPressed', 'textColorTextFocus'], c('ink')),
    ...each(['border', 'borderHover', 'borderPressed', 'borderFocus', 'borderDisabled'], edge),
  }
  return {
    common: {
      fontFamily: c('text'),
      fontFamilyMono: c('mono'),
      fontSize: '14px',
      borderRadius: '6px',
      ...each(['primaryColor', 'primaryColorHover', 'primaryColorPressed', 'primaryColorSuppl'], c('tide')),
      ...each(['errorColor', 'errorColorHover', 'errorColorPressed', 'errorColorSuppl'], c('buoy')),
      ...each(['warningColor', 'warningColorHover', 'warningColorPressed'], c('sand')),
      ...each(['textColorBase', 'textColor1', 'textColor2'], c('ink')),
      ...each(['textColor3', 'placeholderColor', 'textColorDisabled', 'iconColor', 'clearColor', 'closeIconColor'], c('ink-soft')),
      ...each(['bodyColor', 'cardColor', 'modalColor', 'popoverColor', 'inputColor', 'tableColor'], c('sheet')),
      ...each(['hoverColor', 'inputColorDisabled', 'actionColor', 'tableColorHover', 'tableHeaderColor'], c('shoal-faint')),
      borderColor: c('line-strong'),
      dividerColor: c('line'),
      baseColor: c('on-button'),
      opacityDisabled: '0.6',
    },
    Button: { ...plain, ...primary, ...each(['waveOpacity'], '0') },
    Input: { border: edge, borderHover: edge, color: c('sheet'), colorFocus: c('sheet'), textColorDisabled: c('ink-soft') },
    InternalSelection: {
      border: edge,
      borderHover: edge,
      color: c('sheet'),
      colorActive: c('sheet'),
      placeholderColor: c('ink-soft'),
      textColorDisabled: c('ink-soft'),
      colorDisabled: c('shoal-faint'),
    },
    InternalSelectMenu: {
      optionColorActive: c('shoal'),
      optionColorPending: c('shoal-faint'),
      optionColorActivePending: c('shoal'),
      optionTextColorActive: c('ink'),
      optionCheckColor: c('tide'),
    },
    Checkbox: { border: edge, borderChecked: `1px solid ${c('tide')}`, checkMarkColor: c('sheet'), textColor: c('ink') },
    Radio: {
      boxShadow: `inset 0 0 0 1px ${c('line-strong')}`,
      textColor: c('ink'),
      buttonColor: c('sheet'),
      buttonTextColor: c('ink'),
      buttonTextColorHover: c('ink'),
      buttonTextColorActive: c('ink'),
      buttonColorActive: c('shoal'),
      buttonBorderColor: c('line-strong'),
      buttonBorderColorHover: c('line-strong'),
      buttonBorderColorActive: c('tide'),
    },
    Form: {
      labelTextColor: c('ink-soft'),
      labelFontSizeTopMedium: '12px',
      labelHeightMedium: '20px',
      labelPaddingVertical: '0 0 2px',
      feedbackTextColor: c('ink-soft'),
      feedbackTextColorError: c('buoy'),
      feedbackPadding: '2px 0 0',
      feedbackFontSizeMedium: '13px',
      feedbackHeightMedium: '20px',
      blankHeightMedium: '34px',
    },
    Switch: { railColorActive: c('tide'), railColor: c('line-strong') },
    Tooltip: { color: c('deep'), textColor: c('on-deep') },
    DataTable: { thColor: c('sheet'), tdColor: c('sheet'), thTextColor: c('ink-soft'), borderColor: c('line'), tdColorHover: c('shoal-faint') },
    Skeleton: { color: c('line'), colorEnd: c('shoal-faint') },
  }
}

/** On a phone, and at the Counter: what is pressed with a thumb is 48 px high. */
export const ROOMY: GlobalThemeOverrides = {
  common: { heightMedium: '48px', fontSizeMedium: '16px', heightSmall: '48px', fontSizeSmall: '16px' },
  Form: { labelFontSizeTopMedium: '15px', blankHeightMedium: '48px' },
}
