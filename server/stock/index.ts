export * from './issuePart'
