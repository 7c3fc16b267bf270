import { Module, type DynamicModule } from '@nestjs/common';
import { APP_FILTER, APP_GUARD, APP_PIPE } from '@nestjs/core';
import { TypeOrmModule } from '@nestjs/typeorm';
import type { DataSource } from 'typeorm';
import { ProblemFilter } from './common/problem.filter.js';
import { validationPipe } from './common/validation.js';
import type { Config } from './config.js';
import { CribController } from './crib/crib.controller.js';
import { CribService } from './crib/crib.service.js';
import { CustomersController } from './customers/customers.controller.js';
import { Demo } from './demo/demo.js';
import { EntriesService } from './entries/entries.service.js';
import { PinsService } from './entries/pins.service.js';
import { FilesService } from './files/files.service.js';
import { FilesController } from './files/files.controller.js';
import { DiskWatch } from './health/disk-watch.js';
import { HealthController } from './health/health.controller.js';
import { InstrumentsController } from './instruments/instruments.controller.js';
import { InstrumentsService } from './instruments/instruments.service.js';
import { JobsController } from './jobs/jobs.controller.js';
import { JobsService } from './jobs/jobs.service.js';
import { TodayController } from './jobs/today.controller.js';
import { TodayService } from './jobs/today.service.js';
import { UnitsController } from './jobs/units.controller.js';
import { NoticesController } from './notices/notices.controller.js';
import { NoticesService } from './notices/notices.service.js';
import { OrdersController } from './orders/orders.controller.js';
import { OrdersService } from './orders/orders.service.js';
import { SupplierStandIn } from './orders/supplier-stand-in.js';
import { OutboxService } from './outbox/outbox.service.js';
import { PapersController } from './papers/papers.controller.js';
import { AccessGuard } from './people/access.guard.js';
import { FirstRunController } from './people/first-run.controller.js';
import { LoginLimit } from './people/login-limit.js';
import { PeopleController } from './people/people.controller.js';
import { PeopleService } from './people/people.service.js';
import { ShopController } from './people/shop.controller.js';
import { QuotesController } from './quotes/quotes.controller.js';
import { QuotesService } from './quotes/quotes.service.js';
import { ReportsController } from './reports/reports.controller.js';
import { ProposalsService } from './sheets/proposals.service.js';
import { SheetWork } from './sheets/sheet-work.js';
import { SheetsController } from './sheets/sheets.controller.js';
import { SheetsService } from './sheets/sheets.service.js';
import { StoresController } from './stores/stores.controller.js';
import { StoresService } from './stores/stores.service.js';
import { StreamController } from './stream/stream.controller.js';
import { StreamService } from './stream/stream.service.js';
import { TabletsController } from './tablets/tablets.controller.js';
import { TabletsService } from './tablets/tablets.service.js';
import { CONFIG } from './tokens.js';
import { WorkingsController } from './workings/workings.controller.js';

@Module({})
export class AppModule {
  /** The whole server over a database that is connected and migrated already. */
  static over(config: Config, dataSource: DataSource): DynamicModule {
    return {
      module: AppModule,
      imports: [TypeOrmModule.forRootAsync({ useFactory: () => dataSource.options, dataSourceFactory: () => Promise.resolve(dataSource) })],
      controllers: [
        HealthController,
        PeopleController,
        FirstRunController,
        ShopController,
        StreamController,
        WorkingsController,
        SheetsController,
        PapersController,
        CribController,
        FilesController,
        InstrumentsController,
        TabletsController,
        CustomersController,
        ReportsController,
        StoresController,
        OrdersController,
        QuotesController,
        JobsController,
        TodayController,
        UnitsController,
        NoticesController,
      ],
      providers: [
        { provide: CONFIG, useValue: config },
        { provide: APP_GUARD, useClass: AccessGuard },
        { provide: APP_PIPE, useFactory: validationPipe },
        { provide: APP_FILTER, useClass: ProblemFilter },
        PeopleService,
        LoginLimit,
        NoticesService,
        DiskWatch,
        SheetWork,
        SheetsService,
        ProposalsService,
        EntriesService,
        PinsService,
        JobsService,
        TodayService,
        StreamService,
        TabletsService,
        InstrumentsService,
        FilesService,
        CribService,
        StoresService,
        SupplierStandIn,
        OutboxService,
        OrdersService,
        QuotesService,
        Demo,
      ],
    };
  }
}
