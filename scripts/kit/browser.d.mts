import type { Driver } from 'selenium-webdriver/chrome'

/** @property server where what drives it listens */
export type Browser = Driver & { server: string }

export function openBrowser(folder: string, width: number, height: number, more?: string[]): Promise<Browser>
export function openBefore(where: { server: string; session: string }): Browser
export function sizeWindow(browser: Browser, width: number, height: number): Promise<void>
