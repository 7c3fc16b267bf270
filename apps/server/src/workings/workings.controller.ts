import { ENDPOINTS } from '@jubb/wire';
import { Body, Controller, Param } from '@nestjs/common';
import { Route } from '../common/route.js';
import { wording, workings, type WorkingDescription, type WorkingRun } from '@jubb/core';
import { badInput, notFound } from '../common/problem.js';

@Controller('api/v1')
export class WorkingsController {
  @Route(ENDPOINTS.workings.list)
  list(): readonly WorkingDescription[] {
    return workings.list();
  }

  @Route(ENDPOINTS.workings.describe)
  describe(@Param('id') id: string): WorkingDescription {
    const description = workings.describe(id);
    if (!description) throw notFound('working');
    return description;
  }

  @Route(ENDPOINTS.workings.run)
  run(@Param('id') id: string, @Body() input: Record<string, unknown>): WorkingRun {
    const result = workings.run(id, input);
    if (!result) throw notFound('working');
    if (!result.ok) {
      throw badInput(
        result.issues.map((issue) => ({
          field: issue.field,
          allowed: wording(issue),
          ...(issue.received === undefined ? {} : { given: issue.received }),
        })),
      );
    }
    return result.run;
  }
}
