import type { Beam } from '@lauta/core/cull';

/** A beam that is honest to the gram, but only says which of two hangs lower. */
export const BEAM: Beam = { sensitivityG: 3, sigmaG: 1.5 };
