/** As much as is asked of it: the package comes without types. */
declare module 'ml-regression-theil-sen' {
  export class TheilSenRegression {
    constructor(x: readonly number[], y: readonly number[])
    readonly slope: number
  }
}
