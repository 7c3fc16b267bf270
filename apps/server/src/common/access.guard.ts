import { timingSafeEqual } from 'node:crypto';
import { Injectable, type CanActivate, type ExecutionContext } from '@nestjs/common';
import type { FastifyRequest } from 'fastify';
import { ProblemError } from './problem.js';
import { whoMay } from './route.js';
import type { SessionPerson } from './session.js';

const SAFE = new Set(['GET', 'HEAD']);

/** Log-in, role and CSRF token of every request, by its endpoint. */
@Injectable()
export class AccessGuard implements CanActivate {
  canActivate(context: ExecutionContext): boolean {
    const request = context.switchToHttp().getRequest<FastifyRequest>();
    const allowed = whoMay(context.getHandler());
    // No page of another site can send this header without being asked first.
    const isMachine = allowed === 'anyone' && request.headers.authorization !== undefined;
    if (!SAFE.has(request.method) && !isMachine) checkToken(request, allowed === 'anyone');
    if (allowed === 'anyone') return true;
    const { person } = request.session;
    if (!person) throw new ProblemError('log-in-first');
    if (!allowed.includes(person.role)) {
      throw new ProblemError('not-yours', {
        detail: `You are ${person.role}; it needs ${allowed.join(' or ') || 'nobody'}`,
      });
    }
    return true;
  }
}

/** A page of another site can send our cookie but neither this header nor its value. */
function checkToken(request: FastifyRequest, headerAlone: boolean): void {
  const sent = request.headers['x-jubb-csrf'];
  const wanted = request.session.csrf;
  const matches = typeof sent === 'string' && (headerAlone || (wanted !== undefined && equal(sent, wanted)));
  if (!matches && (headerAlone || request.session.person)) {
    throw new ProblemError('page-out-of-date', {
      errors: [{ field: 'x-jubb-csrf', allowed: 'the token of this session' }],
    });
  }
}

function equal(a: string, b: string): boolean {
  const [left, right] = [Buffer.from(a), Buffer.from(b)];
  return left.length === right.length && timingSafeEqual(left, right);
}

/** The person of a request that got past the guard. */
export function personOf(request: FastifyRequest): SessionPerson {
  const { person } = request.session;
  if (!person) throw new ProblemError('log-in-first');
  return person;
}

/** Who made what is sent, when it is not who is at the tablet now. */
export function makerOf(request: FastifyRequest, personId: string | undefined): SessionPerson {
  const now = personOf(request);
  if (personId === undefined || personId === now.id) return now;
  const maker = request.session.people?.find(({ id }) => id === personId);
  if (!maker) throw new ProblemError('maker-not-here');
  return maker;
}
