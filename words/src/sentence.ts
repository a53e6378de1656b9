/** Of each code its sentence, or how it is made of the code's facts. */
export type Sentences<Facts> = { [Code in keyof Facts]: string | ((facts: Facts[Code]) => string) };

/** The sentence of a code and its facts. */
export function sentenceOf<Facts, Code extends keyof Facts>(
  sentences: Sentences<Facts>,
  reason: { code: Code } & Facts[Code],
): string {
  const sentence = sentences[reason.code];
  return typeof sentence === 'function' ? sentence(reason) : sentence;
}
