/** A4 in millimetres (ISO 216). */
export const PAGE = { width: 210, height: 297 }

export const LABEL_SIZES = ['small', 'medium', 'large'] as const
export type LabelSize = (typeof LABEL_SIZES)[number]

/** One sheet: labels in columns and rows, in millimetres. Sizes as label stock is commonly cut (common practice, no source). */
export interface LabelSheet {
  name: string
  columns: number
  rows: number
  width: number
  height: number
  /** Between columns. */
  gap: number
}

export const LABEL_SHEETS: Record<LabelSize, LabelSheet> = {
  small: { name: 'Small, 24 a page, for machines', columns: 3, rows: 8, width: 63.5, height: 33.9, gap: 2.5 },
  medium: { name: 'Medium, 8 a page, for doors', columns: 2, rows: 4, width: 99.1, height: 67.7, gap: 2.5 },
  large: { name: 'Large, 2 a page, for walls', columns: 1, rows: 2, width: 190, height: 138, gap: 0 },
}

export interface LabelSpot {
  page: number
  /** Millimetres from the left and the top of the page. */
  x: number
  y: number
}

/** Where the label with this index (from 0) stands: row by row, the grid in the middle of the page. */
export function labelSpot(sheet: LabelSheet, index: number): LabelSpot {
  const onPage = sheet.columns * sheet.rows
  const place = index % onPage
  const gridWidth = sheet.columns * sheet.width + (sheet.columns - 1) * sheet.gap
  return {
    page: Math.floor(index / onPage),
    x: (PAGE.width - gridWidth) / 2 + (place % sheet.columns) * (sheet.width + sheet.gap),
    y: (PAGE.height - sheet.rows * sheet.height) / 2 + Math.floor(place / sheet.columns) * sheet.height,
  }
}
