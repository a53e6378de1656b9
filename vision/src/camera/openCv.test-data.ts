import { createRequire } from 'node:module';
import type OpenCvModule from '@techstark/opencv-js';

export type OpenCv = typeof OpenCvModule;

/**
 * The reference for what is computed here. OpenCV's module is a thenable that resolves to itself: imported or awaited
 * it never ends, so it is required and asked.
 */
export const cv = createRequire(import.meta.url)('@techstark/opencv-js') as OpenCv;

export async function openCvReady(): Promise<void> {
  while (!('Mat' in cv)) await new Promise((resolve) => setTimeout(resolve, 20));
}
