import type { FishTag, TagColour } from '@lauta/core/well';
import { tagWords } from '@lauta/words/well';

const FILL: Record<TagColour, string> = {
  white: '#ffffff',
  yellow: '#f2d544',
  orange: '#ee8b2c',
  red: '#d2402f',
  green: '#3f8f4f',
  blue: '#3672b8',
  violet: '#8457a8',
  black: '#1a1a1a',
};
const LIGHT_INK: readonly TagColour[] = ['red', 'green', 'blue', 'violet', 'black'];

/** A cull tag as it hangs: a plate with a hole, its number on its colour. Loose ones are drawn with a broken edge. */
export function TagMark({ tag, isLoose = false }: { tag: FishTag | null; isLoose?: boolean }) {
  const colour = tag?.colour ?? null;
  const ink = colour !== null && LIGHT_INK.includes(colour) ? '#ffffff' : '#141414';
  return (
    <span role="img" aria-label={`${tagWords(tag)}${isLoose ? ', loose in the well' : ''}`}>
      <svg viewBox="0 0 44 44" className="size-11 flex-none" aria-hidden="true">
        <path
          d="M8 4h28l6 10v26H2V14Z"
          fill={tag ? (colour ? FILL[colour] : 'var(--color-base-100)') : 'none'}
          stroke="currentColor"
          strokeWidth="2"
          strokeDasharray={isLoose || !tag ? '4 3' : undefined}
        />
        <circle
          cx="22"
          cy="10"
          r="2.5"
          fill="none"
          stroke={tag && colour ? ink : 'currentColor'}
          strokeWidth="1.5"
        />
        <text
          x="22"
          y="34"
          textAnchor="middle"
          fontSize="20"
          fontWeight="800"
          fill={tag && colour ? ink : 'currentColor'}
        >
          {tag ? (tag.number ?? '') : '–'}
        </text>
      </svg>
    </span>
  );
}
