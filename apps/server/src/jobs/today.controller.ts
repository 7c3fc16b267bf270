import { Controller, Get, Inject, Req } from '@nestjs/common';
import { canDo, heldBy, jobState, stageProgress, type AnyKeptEntry, type TodayClock, type TodayLine, type TodayView } from '@jubb/contract';
import type { Request } from 'express';
import { DataSource } from 'typeorm';
import { ENTRY_COLUMNS } from '../entries/entries.service.js';
import { shopDay } from '../common/shop-day.js';
import { personOf } from '../people/access.guard.js';
import { SheetsService } from '../sheets/sheets.service.js';
import { JobsService } from './jobs.service.js';

/** So long after an entry its maker is still at it. */
const AT_IT_MS = 15 * 60_000;

@Controller('api/v1/today')
export class TodayController {
  constructor(
    @Inject(DataSource) private readonly dataSource: DataSource,
    @Inject(JobsService) private readonly jobs: JobsService,
    @Inject(SheetsService) private readonly sheets: SheetsService,
  ) {}

  /** Every open job with its next act: what can be done now, and what waits for what. */
  @Get()
  async today(@Req() request: Request): Promise<TodayView> {
    const me = personOf(request);
    const [heads, entries, tools, people, owed, { today }] = await Promise.all([
      this.jobs.open(),
      this.dataSource.query<AnyKeptEntry[]>(
        `SELECT ${ENTRY_COLUMNS} FROM entry WHERE job_id IN (SELECT id FROM job WHERE closed_at IS NULL) ORDER BY job_id, seq`,
      ),
      this.jobs.tools(),
      this.jobs.people(),
      this.jobs.owedSoon(),
      shopDay(this.dataSource),
    ]);
    const byJob = grouped(entries);
    const now = new Date().toISOString();
    const read = await Promise.all(
      heads.map(async (head) => {
        const { file } = await this.sheets.pinned(head.sheetRevisionId, head.scope);
        const state = jobState(file, byJob.get(head.id) ?? []);
        const clocks = state.clocks.map((clock): TodayClock => {
          const then = heldBy(state, clock);
          const { entryId, what, until } = clock;
          return {
            jobId: head.id,
            number: head.number,
            entryId,
            what,
            until,
            then: then ? { step: then.ref, stage: then.stage, title: then.title } : null,
          };
        });
        const last = state.live.at(-1);
        const isOthers = last !== undefined && last.personId !== me.id && Date.parse(now) - Date.parse(last.takenAt) < AT_IT_MS;
        const line: TodayLine = {
          jobId: head.id,
          number: head.number,
          unit: head.unit.name,
          machine: head.machine.name,
          customer: head.customer.name,
          stage: state.stage,
          left: stageProgress(state, state.stage).left,
          hold: head.hold,
          promise: head.promise,
          openEnds: state.openEnds.map(({ what, place }) => [what, place].filter(Boolean).join(', ')),
          ...canDo(state, { hold: head.hold, tools, role: me.role, now, today }),
          with: isOthers ? (people.find(({ id }) => id === last.personId)?.name ?? null) : null,
        };
        return { line, clocks, isMine: last?.personId === me.id };
      }),
    );
    // What is in my hands comes first; the rest by its promise.
    const lines = read.toSorted((a, b) => Number(b.isMine) - Number(a.isMine)).map(({ line }) => line);
    return {
      clocks: read.flatMap(({ clocks }) => clocks),
      now: lines.filter(canGoOn),
      waiting: lines.filter((line) => !canGoOn(line)),
      owed,
      crib: tools
        .filter((tool) => tool.calibrationDue !== null && tool.calibrationDue < today)
        .map((tool) => ({ tag: tool.tag, name: tool.name, due: tool.calibrationDue ?? '' })),
    };
  }
}

/** Something of it can be done, if not the next act then another. */
function canGoOn({ waits, also }: TodayLine): boolean {
  return waits === null || also.length > 0;
}

function grouped(entries: readonly AnyKeptEntry[]): Map<string, AnyKeptEntry[]> {
  const map = new Map<string, AnyKeptEntry[]>();
  for (const entry of entries) {
    const list = map.get(entry.jobId);
    if (list) list.push(entry);
    else map.set(entry.jobId, [entry]);
  }
  return map;
}
