import { and, eq, inArray } from 'drizzle-orm';
import type { Connection } from '../storage/database.ts';
import { specimenPhotographs, specimens } from '../storage/schema.ts';
import type { SpecimenStore } from './specimenStore.ts';

const { record, eventId, entrantId, receivedAt } = specimens;
const STORED = { record, eventId, entrantId, receivedAt };

export function mariadbSpecimenStore(db: Connection): SpecimenStore {
  return {
    async add(specimen) {
      const { specimenId, corrects } = specimen.record;
      await db
        .insert(specimens)
        .values({ specimenId, correctsId: corrects?.specimenId ?? null, ...specimen });
      const { photographs } = specimen.record.specimen;
      if (photographs.length === 0) return;
      await db
        .insert(specimenPhotographs)
        .values(photographs.map(({ photographId }, seq) => ({ specimenId, photographId, seq })));
    },
    async find(id) {
      const [row] = await db.select(STORED).from(specimens).where(eq(specimens.specimenId, id));
      return row ?? null;
    },
    async correctionOf(id) {
      const [row] = await db.select(STORED).from(specimens).where(eq(specimens.correctsId, id));
      return row ?? null;
    },
    async withPhotograph(id) {
      const [row] = await db
        .select(STORED)
        .from(specimens)
        .innerJoin(specimenPhotographs, eq(specimenPhotographs.specimenId, specimens.specimenId))
        .where(eq(specimenPhotographs.photographId, id));
      return row ?? null;
    },
    async inEvent(id, entrantIds) {
      if (entrantIds?.length === 0) return [];
      return db
        .select(STORED)
        .from(specimens)
        .where(and(eq(eventId, id), entrantIds ? inArray(entrantId, [...entrantIds]) : undefined))
        .orderBy(receivedAt, specimens.specimenId);
    },
  };
}
