import type { Response } from 'express';
import Papa from 'papaparse';

/** Answers with rows as a file. Names come from people: a spreadsheet must not take one for a formula. */
export function csvAnswer(response: Response, name: string, rows: readonly object[]): undefined {
  response.setHeader('Content-Disposition', `attachment; filename="${name}.csv"`);
  response.type('text/csv; charset=utf-8').send(Papa.unparse([...rows], { escapeFormulae: true }));
  return undefined;
}
