/** A probability of 0 to 1 in words: nothing that was reckoned is certain. */
export const chanceWords = (share: number): string =>
  share > 0.995 ? 'over 99 %' : share < 0.005 ? 'under 1 %' : `${Math.round(100 * share)} %`;
