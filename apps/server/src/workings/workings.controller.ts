import { Body, Controller, Get, HttpCode, Param, Post } from '@nestjs/common';
import { wording, workings, type WorkingDescription, type WorkingRun } from '@jubb/core';
import { badInput, notFound } from '../common/problem.js';

@Controller('api/v1/workings')
export class WorkingsController {
  @Get()
  list(): readonly WorkingDescription[] {
    return workings.list();
  }

  @Get(':id')
  describe(@Param('id') id: string): WorkingDescription {
    const description = workings.describe(id);
    if (!description) throw notFound('working');
    return description;
  }

  @Post(':id/run')
  @HttpCode(200)
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
