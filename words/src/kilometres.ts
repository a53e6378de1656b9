/** `1.4 km`. */
export function kilometres(metres: number): string {
  return `${(metres / 1000).toFixed(1)} km`;
}
