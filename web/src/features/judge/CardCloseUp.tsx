import type { CatchView } from '@lauta/contract';
import { faceLengthMm, type Finding } from '@lauta/vision';
import { useInEvent } from '../../event/inEvent.ts';
import { useObjectUrl } from '../../ui/useObjectUrl.ts';
import { useBoards } from '../../queries/boards.ts';
import { useEvidence } from '../../queries/catches.ts';
import { PictureCut } from '../../bench/PictureCut.tsx';

/** A card and a little about it, mm (it is 85.6 by 54). */
const SHOWN_MM = { width: 130, height: 84 };
const SHOWN = { width: 300, height: (300 * SHOWN_MM.height) / SHOWN_MM.width };

/** What looks like a card without a readable code, cut from the photograph: as large as a person needs it to read it. */
export function CardCloseUp({
  caught,
  finding,
  onShow,
}: {
  caught: CatchView;
  finding: Finding;
  onShow: (finding: Finding) => void;
}) {
  const { event } = useInEvent();
  const { photographId, reading } = caught.measurement;
  const measured = caught.photographs.find((one) => one.photographId === photographId);
  const src = useObjectUrl(useEvidence(photographId, measured?.sha256).data);
  const boards = useBoards(event.eventId);
  if (reading.kind !== 'board' || !src || !measured || !finding.place) return null;
  const board = boards.find(reading.boardId);
  const [zero, end] = reading.marks.corners;
  const facePx = Math.hypot(end[0] - zero[0], end[1] - zero[1]);
  const pxPerMm = board ? facePx / faceLengthMm(board) : measured.widthPx / 1000;
  return (
    <button
      type="button"
      aria-label="The card, enlarged: show it in the photograph"
      className="border-base-content relative ml-5 block overflow-hidden border"
      style={{ ...SHOWN, maxWidth: '100%' }}
      onClick={() => onShow(finding)}
    >
      <PictureCut
        src={src}
        size={{ width: measured.widthPx, height: measured.heightPx }}
        point={finding.place}
        scale={SHOWN.width / (SHOWN_MM.width * pxPerMm)}
        shown={SHOWN}
        alt="The card, enlarged"
      />
    </button>
  );
}
