import { OPTIONS, TEST } from './dependencies.config.mjs';

/** A folder that imports another is never imported by it, on whatever way round. Tests may reach anywhere. */
/** @type {import('dependency-cruiser').IConfiguration} */
export default {
  forbidden: [
    {
      name: 'folders-in-a-circle',
      severity: 'error',
      scope: 'folder',
      from: {},
      to: { circular: true },
    },
    { name: 'files-in-a-circle', severity: 'error', from: {}, to: { circular: true } },
  ],
  options: { ...OPTIONS, exclude: { path: `${OPTIONS.exclude.path}|${TEST}` } },
};
