import './kit/fonts.css'
import './kit/tokens.css'
import { createPinia } from 'pinia'
import { createApp } from 'vue'
import App from './App.vue'
import { keepKeyboardWhereItWas } from './kit/stayingFocus'
import { startTheme } from './kit/theme'
import { router } from './router'

allowOwnStyles()
startTheme()
keepKeyboardWhereItWas()
createApp(App).use(createPinia()).use(router).mount('#app')

/** Components write their styles at run time; the content security policy lets those with the page's nonce in. */
function allowOwnStyles(): void {
  const nonce = document.querySelector<HTMLMetaElement>('meta[name="csp-nonce"]')?.content
  if (!nonce) return
  const create = document.createElement.bind(document)
  document.createElement = (tag: string, options?: ElementCreationOptions) => {
    const element = create(tag, options)
    if (tag.toLowerCase() === 'style') element.setAttribute('nonce', nonce)
    return element
  }
}
