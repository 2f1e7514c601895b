/** The section of visits on the Sheet of an order. */
export const VISITS = 'visits'
