import { createHash } from 'node:crypto';
import express from 'express';
import {
  declarePhotographSchema,
  PHOTOGRAPH_LIMITS,
  PHOTOGRAPH_VARIANTS,
  type PhotographVariant,
} from '@lauta/contract';
import { idParameter, type Asked, type RouteTable } from '../http/routeTable.ts';
import type { Scope } from '../access/scope.ts';
import { refuse } from '../base/refusal.ts';
import type { Photograph } from './photographStore.ts';
import { completePhotograph, declarePhotograph, receiveChunk } from './receivePhotograph.ts';
import { readOriginal } from './readOriginal.ts';
import type { EventId } from '@lauta/core/ids';

const CHUNK_BODY = express.raw({ type: () => true, limit: PHOTOGRAPH_LIMITS.chunkBytes + 1024 });

export function addPhotographRoutes(table: RouteTable): void {
  table.allowed(
    'put',
    '/api/photographs/:photographId',
    'upload-photograph',
    async ({ request }) => ({ eventId: declared(request.body).eventId }),
    async ({ lauta, request, account }) => {
      const body = declared(request.body);
      if (body.photographId !== idParameter(request, 'photographId')) {
        refuse('invalid-request', { path: 'photographId' });
      }
      return declarePhotograph(lauta, account?.accountId ?? '', body);
    },
  );

  table.allowed(
    'put',
    '/api/photographs/:photographId/chunks/:seq',
    'upload-photograph',
    uploadScope,
    async ({ lauta, request, account }) => {
      const seq = Number(request.params['seq']);
      const bytes: unknown = request.body;
      if (bytes instanceof Uint8Array && !digestFits(request.get('content-digest'), bytes))
        refuse('checksum-mismatch');
      await receiveChunk(
        lauta,
        account?.accountId ?? '',
        idParameter(request, 'photographId'),
        seq,
        bytes instanceof Uint8Array ? bytes : new Uint8Array(),
      );
      return { ok: true };
    },
    [CHUNK_BODY],
  );

  table.allowed(
    'post',
    '/api/photographs/:photographId/complete',
    'upload-photograph',
    uploadScope,
    async ({ lauta, request, account }) =>
      completePhotograph(lauta, account?.accountId ?? '', idParameter(request, 'photographId')),
  );

  for (const variant of PHOTOGRAPH_VARIANTS) {
    table.allowed(
      'get',
      `/api/photographs/:photographId/${variant}`,
      variant === 'original' ? 'see-original' : 'see-catch',
      viewScope,
      async (asked) => sendPhotograph(asked, variant),
    );
  }
}

/** RFC 9530: a chunk that tells its digest and was damaged on its way is not kept. Versions before tell none. */
function digestFits(header: string | undefined, bytes: Uint8Array): boolean {
  if (header === undefined) return true;
  const told = /(?:^|,)\s*sha-256=:([A-Za-z0-9+/=]+):/.exec(header)?.[1];
  return told === createHash('sha256').update(bytes).digest('base64');
}

const declared = (body: unknown) => declarePhotographSchema.parse(body);

async function photographAsked({ lauta, request }: Asked): Promise<Photograph> {
  const photograph = await lauta.storage.read.photographs.find(idParameter(request, 'photographId'));
  if (!photograph) refuse('not-found', { what: 'photograph' });
  return photograph;
}

async function uploadScope(asked: Asked): Promise<Scope & { eventId: EventId }> {
  const { eventId, accountId } = await photographAsked(asked);
  if (asked.account && accountId !== asked.account.accountId) refuse('not-found', { what: 'photograph' });
  return { eventId };
}

/** A photograph is seen by whom its catch or specimen is seen by; before it belongs to one, by its sender. */
async function viewScope(asked: Asked): Promise<Scope & { eventId: EventId }> {
  const { photographId, eventId, accountId } = await photographAsked(asked);
  const { catches, specimens } = asked.lauta.storage.read;
  const record =
    (await catches.withPhotograph(photographId)) ?? (await specimens.withPhotograph(photographId));
  if (record) return { eventId, entrantId: record.entrantId };
  // Before it belongs to anything it is nobody's business but its sender's, a judge's neither.
  if (accountId !== asked.account?.accountId) refuse('not-found', { what: 'photograph' });
  return { eventId, own: true };
}

async function sendPhotograph(asked: Asked, variant: PhotographVariant): Promise<undefined> {
  const { lauta, request, response } = asked;
  const photograph = await photographAsked(asked);
  if (!photograph.completedAt) refuse('not-found', { what: 'photograph' });
  const found =
    variant === 'original'
      ? { bytes: null, sha256: photograph.sha256 }
      : await lauta.storage.read.photographs.copy(photograph.photographId, variant);
  if (!found) refuse('not-found', { what: 'photograph' });
  response.setHeader('ETag', `"${found.sha256}"`);
  // The browser asks each time: who has signed out, or lost the role, is shown nothing that was kept.
  response.setHeader('Cache-Control', 'private, no-cache');
  if (request.headers['if-none-match'] === `"${found.sha256}"`) {
    response.status(304).end();
    return undefined;
  }
  const bytes = found.bytes ?? (await readOriginal(lauta.storage.read, photograph));
  if (!bytes) refuse('not-found', { what: 'photograph' });
  if (found.bytes && createHash('sha256').update(found.bytes).digest('hex') !== found.sha256)
    refuse('photograph-altered', { photographId: photograph.photographId });
  response.type(photograph.mediaType).send(Buffer.from(bytes));
  return undefined;
}
