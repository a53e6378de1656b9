// What an installation's data is, asked of the data itself before anything is done to it.
import { run } from './processes.mjs';

/**
 * Asks the database at an address.
 * @param {string} uri
 * @param {string} statement
 * @returns {Promise<string[]>} the first column
 */
export async function ask(uri, statement) {
  const { username, password, hostname, port, pathname } = new URL(uri);
  const args = ['--no-defaults', '--protocol=tcp', '--batch', '--skip-column-names', `--host=${hostname}`, `--port=${port}`, `--user=${username}`, pathname.slice(1), '-e', statement]; // prettier-ignore
  const out = await run('mariadb', args, { env: { ...process.env, MYSQL_PWD: password } });
  return out.split('\n').filter((line) => line !== '');
}

/**
 * What is in a database: nothing, a demo, or a real installation with the names of its events.
 * @param {string} uri
 * @returns {Promise<{ kind: 'empty' | 'demo' | 'real', events: string[] }>}
 */
export async function dataOf(uri) {
  const tables = await ask(uri, "SHOW TABLES LIKE 'settings'");
  if (tables.length === 0) return { kind: 'empty', events: [] };
  const demo = await ask(uri, "SELECT value FROM settings WHERE name = 'demo-clock-offset-ms'");
  if (demo.length > 0) return { kind: 'demo', events: [] };
  const accounts = await ask(uri, 'SELECT COUNT(*) FROM accounts');
  const events = await ask(uri, 'SELECT name FROM events');
  return { kind: accounts[0] === '0' ? 'empty' : 'real', events };
}
