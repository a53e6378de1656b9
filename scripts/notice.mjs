// npm run notice [-- --check]: writes NOTICE, the licences of all that Lauta ships or runs with; with --check tells whether
// it is up to date, and whether every licence is one that any club can accept.
import { existsSync, readFileSync, readdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { ROOT } from './machine/installation.mjs';
import { run } from './machine/processes.mjs';
import { Trouble, endWith, say } from './machine/say.mjs';

/** Open-source licences (OSI, or free for fonts and data) under which everything here may be used and passed on. */
const ACCEPTED = new Set([
  'MIT', 'ISC', 'Apache-2.0', 'BSD-2-Clause', 'BSD-3-Clause', '0BSD', 'Unlicense', 'CC0-1.0', 'OFL-1.1', 'BlueOak-1.0.0',
  'Zlib', 'MIT-0', 'Python-2.0', 'Bitstream-Vera',
  // sharp's libvips: a library of its own file, used as it is.
  'LGPL-3.0-or-later',
]); // prettier-ignore

/** Packages whose package.json names no licence by its SPDX name, with what their own file says. */
const BY_THEIR_FILE = new Map([
  ['jstat', 'MIT'],
  ['png-js', 'MIT'],
  ['dejavu-fonts-ttf', 'Bitstream-Vera'],
]);

/** Only what the machine it is made on has installed differs between machines: libraries of other processors. */
const OF_A_MACHINE = /-(linux|linuxmusl|darwin|win32|freebsd|android)(-|$)/;

/** @typedef {{ name: string, version: string, license?: string, location: string, text: string }} Shipped */

/** @returns {Promise<Shipped[]>} */
async function shipped() {
  const npm = process.env['npm_execpath'];
  const args = ['query', '.prod:not(.workspace)'];
  const out = npm
    ? await run(process.execPath, [npm, ...args], { cwd: ROOT })
    : await run('npm', args, { cwd: ROOT });
  /** @type {Shipped[]} */
  const found = JSON.parse(out);
  return found
    .filter(({ location }) => location.startsWith('node_modules') || location.includes('/node_modules/'))
    .map((one) => ({ ...one, text: textIn(join(ROOT, one.location)) }))
    .sort((a, b) => (a.name < b.name ? -1 : a.name > b.name ? 1 : a.version < b.version ? -1 : 1));
}

function textIn(/** @type {string} */ dir) {
  const name = readdirSync(dir).find((one) => /^(licen[cs]e|copying)(\.|-|$)/i.test(one));
  return name ? readFileSync(join(dir, name), 'utf8').replaceAll('\r\n', '\n').trim() : '';
}

const licenceOf = (/** @type {Shipped} */ { name, license }) =>
  BY_THEIR_FILE.get(name) ?? license ?? 'none named';

/** Of "A OR B" one is enough; of "A AND B" all are wanted. */
function isAccepted(/** @type {string} */ licence) {
  const plain = licence.replaceAll(/[()]/g, '');
  return plain.split(' OR ').some((one) => one.split(' AND ').every((part) => ACCEPTED.has(part)));
}

function noticeOf(/** @type {Shipped[]} */ all) {
  const same = all.filter(({ name }) => !OF_A_MACHINE.test(name));
  /** @type {Map<string, Shipped[]>} */
  const byText = new Map();
  for (const one of same) byText.set(one.text, [...(byText.get(one.text) ?? []), one]);
  const lines = same.map((one) => `${one.name} ${one.version}: ${licenceOf(one)}`);
  const texts = [...byText]
    .filter(([text]) => text !== '')
    .map(([text, of]) => `${'-'.repeat(80)}\n${of.map(({ name }) => name).join(', ')}\n\n${text}`);
  return `Lauta ships and runs with the packages below. This file is made by npm run notice.
sharp uses libvips, a library of its own file under LGPL-3.0-or-later, in the build for the machine it runs on.
MariaDB Server and Chromium (tests only) are Debian's packages, with their own terms.

${lines.join('\n')}

${texts.join('\n\n')}
`;
}

async function main() {
  const all = await shipped();
  const refused = all.filter((one) => !isAccepted(licenceOf(one)));
  if (refused.length > 0)
    throw new Trouble(`Not every club can accept: ${refused.map((one) => `${one.name} (${licenceOf(one)})`).join(', ')}`); // prettier-ignore
  const file = join(ROOT, 'NOTICE');
  const wanted = noticeOf(all);
  if (process.argv.includes('--check')) {
    if (!existsSync(file) || readFileSync(file, 'utf8') !== wanted)
      throw new Trouble('NOTICE is not up to date: npm run notice writes it anew.');
    say(`NOTICE names all ${all.length} packages.`);
    return;
  }
  writeFileSync(file, wanted);
  say(`NOTICE: ${all.length} packages`);
}

main().catch(endWith);
