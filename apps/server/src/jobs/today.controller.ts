import { Controller, Get, Inject } from '@nestjs/common';
import {
  find,
  jobState,
  nextAct,
  stageProgress,
  type AnyKeptEntry,
  type JobState,
  type SheetFile,
  type TodayClock,
  type TodayLine,
  type TodayView,
  type Tool,
} from '@jubb/contract';
import { DataSource } from 'typeorm';
import { ENTRY_COLUMNS } from '../entries/entries.service.js';
import { SheetsService } from '../sheets/sheets.service.js';
import { JobsService } from './jobs.service.js';

@Controller('api/v1/today')
export class TodayController {
  constructor(
    @Inject(DataSource) private readonly dataSource: DataSource,
    @Inject(JobsService) private readonly jobs: JobsService,
    @Inject(SheetsService) private readonly sheets: SheetsService,
  ) {}

  /** Every open job with its next act: what can be done now, and what waits for what. */
  @Get()
  async today(): Promise<TodayView> {
    const [heads, entries, tools, owed] = await Promise.all([
      this.jobs.open(),
      this.dataSource.query<AnyKeptEntry[]>(
        `SELECT ${ENTRY_COLUMNS} FROM entry WHERE job_id IN (SELECT id FROM job WHERE closed_at IS NULL) ORDER BY job_id, seq`,
      ),
      this.jobs.tools(),
      this.jobs.owedSoon(),
    ]);
    const byJob = grouped(entries);
    const today = new Date().toISOString().slice(0, 10);
    const read = await Promise.all(
      heads.map(async (head) => {
        const { file } = await this.sheets.pinned(head.sheetRevisionId, head.scope);
        const state = jobState(file, byJob.get(head.id) ?? []);
        const clocks = state.clocks.map(({ entryId, what, until }): TodayClock => ({
          jobId: head.id,
          number: head.number,
          entryId,
          what,
          until,
        }));
        const line: TodayLine = {
          jobId: head.id,
          number: head.number,
          unit: head.unit.name,
          machine: head.machine.name,
          customer: head.customer.name,
          stage: state.stage,
          next: nextAct(state)?.say ?? '',
          left: stageProgress(state, state.stage).left,
          hold: head.hold,
          promise: head.promise,
          openEnds: state.openEnds.length,
          waits: waitsFor(state, file, tools, today),
        };
        return { line, clocks };
      }),
    );
    const lines = read.map(({ line }) => line);
    return {
      clocks: read.flatMap(({ clocks }) => clocks),
      now: lines.filter((line) => !line.hold && !line.waits),
      waiting: lines.filter((line) => line.hold ?? line.waits),
      owed,
      crib: tools
        .filter((tool) => tool.calibrationDue !== null && tool.calibrationDue < today)
        .map((tool) => ({ tag: tool.tag, name: tool.name, due: tool.calibrationDue ?? '' })),
    };
  }
}

/** The kind of tool that the next act needs and the crib has none of in date. */
function waitsFor(state: JobState, sheet: SheetFile, tools: readonly Tool[], today: string): string | null {
  const record = nextAct(state)?.step?.record;
  const kind =
    find(sheet.limits, record?.limit)?.tool ?? find(sheet.settings, record?.setting)?.tool ?? (record?.joint ? 'torque-wrench' : undefined);
  if (!kind) return null;
  const usable = tools.some((tool) => tool.kind === kind && (tool.calibrationDue === null || tool.calibrationDue >= today));
  return usable ? null : `no ${kind.replaceAll('-', ' ')} in calibration`;
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
