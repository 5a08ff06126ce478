/** To one decimal place. */
export function tenth(value: number): number {
  return Math.round(value * 10) / 10;
}

/** To two decimal places. */
export function hundredth(value: number): number {
  return Math.round(value * 100) / 100;
}
