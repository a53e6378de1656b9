/** International avoirdupois pound, exact (1959 agreement). */
export const G_PER_POUND = 453.59237;

/** Guesses for one tap while the fish pulls, pounds. */
export const GUESSED_POUNDS = [1, 2, 4, 6, 9, 14] as const;
