import { isIP } from 'node:net';
import type { RequestHandler } from 'express';
import { sendProblem } from './problem.ts';

const LOOPBACK = ['localhost', '127.0.0.1', '[::1]'];

function isAllowed(host: string | undefined, hosts: readonly string[]): boolean {
  const name = (host ?? '').replace(/:\d+$/, '').toLowerCase();
  const bare = name.replace(/^\[|\]$/g, '');
  return LOOPBACK.includes(name) || isIP(bare) > 0 || hosts.some((one) => fits(name, one.toLowerCase()));
}

/** A certificate's name may stand for all beneath one (RFC 6125, 6.4.3). */
function fits(name: string, pattern: string): boolean {
  if (!pattern.startsWith('*.')) return name === pattern;
  return name.slice(name.indexOf('.')) === pattern.slice(1) && !name.startsWith('.');
}

/**
 * Refuses to answer to a name that is not the server's: a foreign page whose name is pointed at this machine (DNS
 * rebinding) would else be of one origin with it. A bare address can't be pointed elsewhere.
 * @param hosts null where a proxy sees to it
 */
export function hostsAllowed(hosts: readonly string[] | null): RequestHandler {
  return (request, response, next) => {
    if (hosts === null || isAllowed(request.headers.host, hosts)) next();
    else sendProblem(response, 'wrong-host');
  };
}
