import type { WebDriver } from 'selenium-webdriver'

export function openBrowser(folder: string, width: number, height: number, more?: string[]): Promise<WebDriver>
