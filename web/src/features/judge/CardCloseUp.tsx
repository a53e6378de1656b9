import type { CatchView } from '@lauta/contract';
import { faceLengthMm, type Finding } from '@lauta/vision';
import { useInEvent } from '../../frame/inEvent.ts';
import { useObjectUrl } from '../../frame/useObjectUrl.ts';
import { useBoards } from '../boards/queries.ts';
import { useEvidence } from '../catch/queries.ts';

/** A card and a little about it, mm (it is 85.6 by 54). */
const SHOWN_MM = { width: 130, height: 84 };
const WIDTH_PX = 300;
const HEIGHT_PX = (WIDTH_PX * SHOWN_MM.height) / SHOWN_MM.width;

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
  const scale = WIDTH_PX / (SHOWN_MM.width * pxPerMm);
  const [x, y] = finding.place;
  return (
    <button
      type="button"
      aria-label="The card, enlarged: show it in the photograph"
      className="border-base-content relative ml-5 block overflow-hidden border"
      style={{ width: WIDTH_PX, height: HEIGHT_PX, maxWidth: '100%' }}
      onClick={() => onShow(finding)}
    >
      <img
        src={src}
        alt="The card, enlarged"
        className="absolute top-0 left-0 max-w-none origin-top-left"
        style={{
          width: measured.widthPx,
          height: measured.heightPx,
          transform: `translate(${WIDTH_PX / 2 - x * scale}px, ${HEIGHT_PX / 2 - y * scale}px) scale(${scale})`,
        }}
      />
    </button>
  );
}
