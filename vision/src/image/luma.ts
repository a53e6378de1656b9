/**
 * How bright a colour looks, of its red, green and blue: rounded from the weights of broadcast video (ITU-R BT.601:
 * 0.299, 0.587, 0.114), as good for telling fish from board and quicker to read.
 */
export function lumaOf(red: number, green: number, blue: number): number {
  return 0.3 * red + 0.6 * green + 0.1 * blue;
}
