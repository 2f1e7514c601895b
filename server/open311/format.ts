import type { Response } from 'express'
import { XMLBuilder } from 'fast-xml-parser'
import { cleanText } from '#core/kit'

export type Format = 'json' | 'xml'

/** An answer of the standard that says no: each sentence with the code of the answer, as its error format has it. */
export class StandardError extends Error {
  constructor(
    readonly status: number,
    readonly sentences: string[],
  ) {
    super(sentences.join(' '))
  }
}

const builder = new XMLBuilder({ suppressEmptyNode: true })
/** XML 1.0 carries no more than this, also of rows from before texts were cleaned at the door. */
const textOf = cleanText

type Plain = string | number | boolean | null | undefined | Plain[] | { [key: string]: Plain }

function forXml(value: Plain): Plain {
  if (Array.isArray(value)) return value.map(forXml)
  if (value && typeof value === 'object') return Object.fromEntries(Object.entries(value).map(([key, one]) => [key, forXml(one)]))
  return typeof value === 'string' ? textOf(value) : (value ?? '')
}

/** Sends rows as a JSON array or as <root><item>…</item></root>. */
export function sendRows(response: Response, format: Format, root: string, item: string, rows: object[], status = 200): void {
  response.status(status)
  if (format === 'json') response.json(rows)
  else sendXml(response, { [root]: rows.length ? { [item]: rows as Plain[] } : '' })
}

export function sendXml(response: Response, tree: Plain): void {
  response.type('text/xml; charset=utf-8').send(`<?xml version="1.0" encoding="utf-8"?>\n${builder.build(forXml(tree))}`)
}

export function sendErrors(response: Response, format: Format, status: number, sentences: string[]): void {
  sendRows(
    response,
    format,
    'errors',
    'error',
    sentences.map((description) => ({ code: status, description })),
    status,
  )
}
