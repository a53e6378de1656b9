/** International avoirdupois pound in grams, exact (1959 agreement; NIST SP 811, B.8). */
export const G_PER_POUND = 453.59237;
