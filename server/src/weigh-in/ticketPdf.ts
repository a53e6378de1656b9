import { createRequire } from 'node:module';
import PDFDocument from 'pdfkit';
import QRCode from 'qrcode';
import { canonicalBytes, hashHex } from '@lauta/core/ledger';
import { formatMass, formatSteps, unitOf, MASS_STEPS } from '@lauta/core/units';
import type { WeightSheet } from '@lauta/core/rules';
import type { NamedScale } from '@lauta/core/scale';
import { scoreTicket, type Signature, type Ticket } from '@lauta/core/weigh-in';
import { clockTime, dayWords } from '@lauta/words/clock';
import { PENALTY_KIND_WORDS } from '@lauta/words/weighIn';

/** DejaVu has the letters of most names; a PDF's own fonts have those of Western Europe alone. */
const font = (name: string): string =>
  createRequire(import.meta.url).resolve(`dejavu-fonts-ttf/ttf/${name}.ttf`);
const PT_PER_MM = 72 / 25.4;
/** A6, mm (ISO 216). */
const PAGE_MM = { width: 105, height: 148 };
const MARGIN_MM = 8;
const INK = '#18191c';

export interface TicketPaper {
  eventName: string;
  zone: string;
  dayDate: string;
  entrantName: string;
  entrantNumber: number;
  sheet: WeightSheet;
  ticket: Ticket;
  linesOutMs: number;
  /** The scale it was weighed on; null where nobody said. */
  scale: NamedScale | null;
  /** By account. */
  people: Record<string, string>;
  /** Where the event's record ended when this was printed: whoever holds the paper is a witness of it. */
  head: { seq: number; hash: string; signedBy: string | null } | null;
}

/** What the QR code says: the ticket and a hash of its figures, which whoever holds it can compare with the record. */
export function ticketPayload({ ticket }: Pick<TicketPaper, 'ticket'>): string {
  const { ticketId, entrantId, dayId, number, arrivedAtMs, check, weight, bigFishG } = ticket;
  const figures = { ticketId, entrantId, dayId, number, arrivedAtMs, check, weight, bigFishG };
  return `LAUTA-TICKET ${ticketId} ${hashHex(canonicalBytes(figures))}`;
}

/** The slip of a bag as a page of A6, signatures as they were drawn. */
export function ticketPdf(paper: TicketPaper): Promise<Buffer> {
  const pdf = new PDFDocument({
    size: [PAGE_MM.width * PT_PER_MM, PAGE_MM.height * PT_PER_MM],
    margin: 0,
    info: {
      Title: `Ticket ${paper.ticket.number}, ${paper.eventName}`,
      ...(paper.head ? { Subject: `record to entry ${paper.head.seq}: ${paper.head.hash}` } : {}),
    },
  });
  const chunks: Buffer[] = [];
  const done = new Promise<Buffer>((resolve, reject) => {
    pdf.on('data', (chunk: Buffer) => chunks.push(chunk));
    pdf.on('end', () => resolve(Buffer.concat(chunks)));
    pdf.on('error', reject);
  });
  pdf.registerFont('text', font('DejaVuSans'));
  pdf.registerFont('bold', font('DejaVuSans-Bold'));
  pdf.scale(PT_PER_MM).fillColor(INK);
  drawTicket(pdf, paper);
  pdf.end();
  return done;
}

function drawTicket(pdf: PDFKit.PDFDocument, paper: TicketPaper): void {
  const { ticket, sheet } = paper;
  const { step } = sheet.measure;
  const score = scoreTicket(sheet, ticket, paper.linesOutMs);
  const massUnit = MASS_STEPS[step].unit;
  const unit = unitOf(step);
  const width = PAGE_MM.width - 2 * MARGIN_MM;
  let y = MARGIN_MM;
  const line = (left: string, right: string, isBold = false, size = 3.4): void => {
    pdf
      .font('text')
      .fontSize(size)
      .text(left, MARGIN_MM, y, { width: width * 0.55, lineBreak: false });
    pdf.font(isBold ? 'bold' : 'text').text(right, MARGIN_MM + width * 0.5, y, { width: width * 0.5, align: 'right', lineBreak: false }); // prettier-ignore
    y += size * 1.55;
  };
  pdf
    .font('bold')
    .fontSize(4.2)
    .text(paper.eventName, MARGIN_MM, y, { width: width - 26, lineBreak: false });
  y += 6.5;
  pdf
    .font('text')
    .fontSize(3.2)
    .text(`${dayWords(paper.dayDate)}, bag ${ticket.number}`, MARGIN_MM, y, { lineBreak: false });
  y += 5.2;
  pdf.font('bold').fontSize(3.8).text(`${paper.entrantNumber}  ${paper.entrantName}`, MARGIN_MM, y, { width: width - 26, height: 10 }); // prettier-ignore
  drawCode(pdf, ticketPayload(paper), PAGE_MM.width - MARGIN_MM - 24, MARGIN_MM, 24);
  y = 35;
  line('arrived', clockTime(new Date(ticket.arrivedAtMs), paper.zone, true));
  line(
    'alive, dead, short',
    ticket.check ? `${ticket.check.alive}, ${ticket.check.dead}, ${ticket.check.short}` : '–',
  );
  line('gross', ticket.weight ? formatMass(ticket.weight.grossG, massUnit) : '–');
  line('wet bag', ticket.weight ? formatMass(ticket.weight.tareG, massUnit) : '–');
  line('net', score.netSteps === null ? '–' : `${formatSteps(score.netSteps, step)} ${unit}`);
  for (const { kind, count, steps, disqualifies } of score.penalties) {
    line(PENALTY_KIND_WORDS[kind](count), disqualifies ? 'bag does not count' : `${formatSteps(-steps, step)} ${unit}`); // prettier-ignore
  }
  line('total', `${formatSteps(score.totalSteps, step)} ${unit}`, true, 5);
  if (score.bigFishSteps !== null) line('big fish', `${formatSteps(score.bigFishSteps, step)} ${unit}`, true);
  if (paper.scale) line('scale', scaleWords(paper.scale));
  if (ticket.weight) line('weighed by', paper.people[ticket.weight.byId] ?? '');
  if (ticket.confirmedById) line('confirmed by', paper.people[ticket.confirmedById] ?? '');
  if (ticket.corrections.length > 0) line('corrections', String(ticket.corrections.length));
  if (paper.head) drawHead(pdf, paper.head);
  const field = { width: width / 2 - 2, height: 22, top: PAGE_MM.height - MARGIN_MM - 27 };
  (['angler', 'weigh-master'] as const).forEach((signer, i) => {
    const x = MARGIN_MM + i * (width / 2 + 2);
    pdf
      .lineWidth(0.2)
      .moveTo(x, field.top + field.height)
      .lineTo(x + field.width, field.top + field.height)
      .stroke(INK);
    pdf
      .font('text')
      .fontSize(2.8)
      .text(signer.replace('-', ' '), x, field.top + field.height + 1, { lineBreak: false });
    const signed = ticket.signatures[signer];
    if (signed) drawSignature(pdf, signed.signature, x, field);
  });
}

const inFours = (hex: string): string => (hex.match(/.{1,4}/g) ?? []).join(' ');

/** Small, at the foot: it is read when somebody doubts. */
function drawHead(pdf: PDFKit.PDFDocument, { seq, hash, signedBy }: NonNullable<TicketPaper['head']>): void {
  const lines = [
    `record to entry ${seq}: ${inFours(hash.slice(0, 32))}`,
    inFours(hash.slice(32)),
    ...(signedBy ? [`signed by key ${inFours(signedBy)}`] : []),
  ];
  pdf.font('text').fontSize(1.9);
  lines.forEach((text, i) =>
    pdf.text(text, MARGIN_MM, PAGE_MM.height - MARGIN_MM - 1.2 + i * 2.4, { lineBreak: false }),
  );
}

const MOST_LETTERS = 24;
function scaleWords({ name, accuracyClass }: NamedScale): string {
  const short = name.length > MOST_LETTERS ? `${name.slice(0, MOST_LETTERS - 1)}…` : name;
  return accuracyClass === null ? short : `${short}, class ${accuracyClass}`;
}

function drawSignature(
  pdf: PDFKit.PDFDocument,
  signature: Signature,
  x: number,
  { width, height, top }: { width: number; height: number; top: number },
): void {
  if (signature.kind === 'typed') {
    pdf
      .font('text')
      .fontSize(4)
      .text(signature.name, x, top + height - 7, { width, height: 6, lineBreak: false });
    return;
  }
  pdf.lineWidth(0.35).lineCap('round').lineJoin('round');
  for (const stroke of signature.strokes) {
    for (let i = 0; i + 1 < stroke.length; i += 2) {
      const [px, py] = [x + (stroke[i] ?? 0) * width, top + (stroke[i + 1] ?? 0) * height];
      if (i === 0) pdf.moveTo(px, py);
      else pdf.lineTo(px, py);
    }
    pdf.stroke(INK);
  }
}

function drawCode(pdf: PDFKit.PDFDocument, text: string, x: number, y: number, side: number): void {
  const { modules } = QRCode.create(text, { errorCorrectionLevel: 'M' });
  const one = side / modules.size;
  for (let row = 0; row < modules.size; row++) {
    for (let column = 0; column < modules.size; column++) {
      if (modules.get(row, column)) pdf.rect(x + column * one, y + row * one, one, one);
    }
  }
  pdf.fill(INK);
}
