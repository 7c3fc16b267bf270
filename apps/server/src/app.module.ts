import { Module, type DynamicModule } from '@nestjs/common';
import { APP_FILTER, APP_GUARD, APP_PIPE } from '@nestjs/core';
import { TypeOrmModule } from '@nestjs/typeorm';
import type { DataSource } from 'typeorm';
import { ProblemFilter } from './common/problem.filter.js';
import { RequestPipe } from './common/validation.js';
import { BenchesModule } from './benches/benches.module.js';
import { BeginModule } from './begin/begin.module.js';
import type { Config } from './config.js';
import { CribModule } from './crib/crib.module.js';
import { CustomersModule } from './customers/customers.module.js';
import { readExamples } from './demo/demo-library.js';
import { DemoModule } from './demo/demo.module.js';
import { EntriesModule } from './entries/entries.module.js';
import { FilesModule } from './files/files.module.js';
import { HealthModule } from './health/health.module.js';
import { InstrumentsModule } from './instruments/instruments.module.js';
import { JobsModule } from './jobs/jobs.module.js';
import { ListsModule } from './lists/lists.module.js';
import { NoticesModule } from './notices/notices.module.js';
import { OrdersModule } from './orders/orders.module.js';
import { OutboxModule } from './outbox/outbox.module.js';
import { PeopleModule } from './people/people.module.js';
import { QuotesModule } from './quotes/quotes.module.js';
import { ReportsModule } from './reports/reports.module.js';
import { SheetsModule } from './sheets/sheets.module.js';
import { StoresModule } from './stores/stores.module.js';
import { StreamModule } from './stream/stream.module.js';
import { TabletsModule } from './tablets/tablets.module.js';
import { TodayModule } from './today/today.module.js';
import { WorkingsModule } from './workings/workings.module.js';
import { AccessGuard } from './common/access.guard.js';
import { CONFIG, EXAMPLES } from './tokens.js';

/** One module for each domain of the trade. */
const DOMAINS = [
  StreamModule,
  NoticesModule,
  HealthModule,
  TabletsModule,
  PeopleModule,
  SheetsModule,
  StoresModule,
  ListsModule,
  BeginModule,
  BenchesModule,
  EntriesModule,
  JobsModule,
  TodayModule,
  CribModule,
  CustomersModule,
  ReportsModule,
  FilesModule,
  OutboxModule,
  OrdersModule,
  QuotesModule,
  InstrumentsModule,
  WorkingsModule,
  DemoModule,
];

@Module({})
export class AppModule {
  /** The whole server over a database that is connected and migrated already. */
  static over(config: Config, dataSource: DataSource): DynamicModule {
    return {
      module: AppModule,
      imports: [
        {
          module: Given,
          global: true,
          providers: [
            { provide: CONFIG, useValue: config },
            { provide: EXAMPLES, useValue: readExamples },
          ],
          exports: [CONFIG, EXAMPLES],
        },
        TypeOrmModule.forRootAsync({ useFactory: () => dataSource.options, dataSourceFactory: () => Promise.resolve(dataSource) }),
        ...DOMAINS,
      ],
      providers: [
        { provide: APP_GUARD, useClass: AccessGuard },
        { provide: APP_PIPE, useClass: RequestPipe },
        { provide: APP_FILTER, useClass: ProblemFilter },
      ],
    };
  }
}

/** What every domain may ask for. */
class Given {}
