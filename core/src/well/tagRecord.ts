import { TAG_KINDS, type TagKind } from './acts.ts';
import type { LiveWell } from './liveWell.ts';

/** What was seen of fish that bore a kind of tag, or none, at a look. */
export interface TagRecord {
  tagKind: TagKind | null;
  looks: number;
  /** Looks at which the fish was not lively. */
  notLively: number;
  fish: number;
}

/** Looks by the tag that the fish bore: numbers for a question on which careful anglers disagree. */
export function tagRecords({ fish, gone }: Pick<LiveWell, 'fish' | 'gone'>): TagRecord[] {
  const all = [...fish, ...gone];
  return [...TAG_KINDS, null].flatMap((tagKind) => {
    const looks = all.flatMap((one) => one.looks.filter((look) => look.tagKind === tagKind));
    if (looks.length === 0) return [];
    return [
      {
        tagKind,
        looks: looks.length,
        notLively: looks.filter(({ condition }) => condition !== 'lively').length,
        fish: all.filter((one) => one.looks.some((look) => look.tagKind === tagKind)).length,
      },
    ];
  });
}
