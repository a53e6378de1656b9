import PDFDocument from 'pdfkit';
import QRCode from 'qrcode';
import { CARD_MM, formatPayload, moduleOnCard, type Identifier } from '@lauta/core/identifier';

const PT_PER_MM = 72 / 25.4;
/** A4, mm (ISO 216). */
const PAGE_MM = { width: 210, height: 297 };
const COLUMNS = 2;
const ROWS = 5;
/** Height of a capital letter over the font's size in Helvetica Bold (its AFM file: CapHeight 718). */
const CAP_SHARE = 0.718;
const INK = '#18191c';
const CUT_LINE = '#b0b0b0';

/** A sheet of identifier cards in their true size, ten to an A4 page, with lines to cut along. */
export function cardSheet(cards: readonly Identifier[], title: string): Promise<Buffer> {
  const pdf = new PDFDocument({ size: 'A4', margin: 0, autoFirstPage: false, info: { Title: title } });
  const chunks: Buffer[] = [];
  const done = new Promise<Buffer>((resolve, reject) => {
    pdf.on('data', (chunk: Buffer) => chunks.push(chunk));
    pdf.on('end', () => resolve(Buffer.concat(chunks)));
    pdf.on('error', reject);
  });
  const left = (PAGE_MM.width - COLUMNS * CARD_MM.width) / 2;
  const top = (PAGE_MM.height - ROWS * CARD_MM.height) / 2;
  if (cards.length === 0) pdf.addPage().fontSize(12).text('No codes yet.', 72, 72);
  cards.forEach((card, i) => {
    const place = i % (COLUMNS * ROWS);
    if (place === 0) pdf.addPage();
    pdf.save();
    pdf.scale(PT_PER_MM);
    pdf.translate(
      left + (place % COLUMNS) * CARD_MM.width,
      top + Math.floor(place / COLUMNS) * CARD_MM.height,
    );
    drawCard(pdf, card);
    pdf.restore();
  });
  pdf.end();
  return done;
}

/** Draws a card at the origin, units mm. */
function drawCard(pdf: PDFKit.PDFDocument, card: Identifier): void {
  pdf.rect(0, 0, CARD_MM.width, CARD_MM.height).lineWidth(0.1).stroke(CUT_LINE);
  const { modules } = QRCode.create(formatPayload(card), { errorCorrectionLevel: 'Q' });
  for (let row = 0; row < modules.size; row++) {
    for (let column = 0; column < modules.size; column++) {
      if (!modules.get(row, column)) continue;
      const { x, y, side } = moduleOnCard(column, row, modules.size);
      pdf.rect(x, y, side, side);
    }
  }
  pdf.fill(INK);
  const { code, entrant } = CARD_MM;
  write(pdf, card.code, code, code.mostWide);
  write(pdf, String(card.entrantNumber), entrant, code.mostWide);
}

function write(
  pdf: PDFKit.PDFDocument,
  text: string,
  { x, baseline, capHeight }: { x: number; baseline: number; capHeight: number },
  mostWide: number,
): void {
  const size = capHeight / CAP_SHARE;
  pdf.font('Helvetica-Bold').fontSize(size);
  // Letters keep their height and are made narrower where they would run off the card.
  const narrower = Math.min(1, mostWide / pdf.widthOfString(text));
  pdf.save();
  pdf.translate(x, baseline);
  pdf.scale(narrower, 1);
  pdf.text(text, 0, 0, { lineBreak: false, baseline: 'alphabetic' });
  pdf.restore();
}
