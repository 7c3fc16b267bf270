import { BODIES, type Endpoint, type Who } from '@jubb/wire';
import { applyDecorators, HttpCode, RequestMapping, RequestMethod, SetMetadata } from '@nestjs/common';
import { ApiResponse } from '@nestjs/swagger';
import { ANSWER_SCHEMAS } from './answers.js';

const WHO = 'jubb:who';

/** Who may call what a handler answers; nobody where it has no endpoint. */
export function whoMay(handler: object): Who {
  return (Reflect.getMetadata(WHO, handler) as Who | undefined) ?? [];
}

/** Makes a method of a controller answer an endpoint: its address, its status, who may, and what the document says of it. */
export function Route(endpoint: Endpoint): MethodDecorator {
  const { method, path, who, status, body } = endpoint;
  return (target, name, descriptor) => {
    const taken = Reflect.getMetadata('design:paramtypes', target, name) as readonly unknown[];
    if (body && !taken.includes(BODIES[body])) throw new Error(`${method} ${path} takes a ${body}, and its method does not`);
    applyDecorators(
      RequestMapping({ method: RequestMethod[method], path }),
      HttpCode(status),
      SetMetadata(WHO, who),
      ApiResponse({ status, description: status === 204 ? 'Done' : 'As asked', ...contentOf(endpoint) }),
      ApiResponse({ status: 'default', description: 'Refused, or not possible now', content: REFUSAL }),
    )(target, name, descriptor as TypedPropertyDescriptor<unknown>);
  };
}

const REFUSAL = { 'application/problem+json': { schema: { $ref: '#/components/schemas/answer.Problem' } } };

function contentOf({ answers }: Endpoint): Parameters<typeof ApiResponse>[0] {
  if (answers === 'nothing') return {};
  if (typeof answers === 'object' && 'media' in answers) return { content: { [answers.media]: { schema: { type: 'string' } } } };
  const one = (name: string): { $ref: string } => ({ $ref: ANSWER_SCHEMAS.refOf(name) });
  return { schema: typeof answers === 'string' ? one(answers) : { type: 'array', items: one(answers[0]) } };
}
