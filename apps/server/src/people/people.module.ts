import { Module } from '@nestjs/common';
import { NoticesModule } from '../notices/notices.module.js';
import { StreamModule } from '../stream/stream.module.js';
import { TabletsModule } from '../tablets/tablets.module.js';
import { FirstRunController } from './first-run.controller.js';
import { LoginLimit } from './login-limit.js';
import { PeopleController } from './people.controller.js';
import { PeopleService } from './people.service.js';
import { SecondFactorService } from './second-factor.service.js';
import { ShopController } from './shop.controller.js';
import { StaffController } from './staff.controller.js';

/** Who works here, how they prove it, and the shop itself. */
@Module({
  imports: [NoticesModule, StreamModule, TabletsModule],
  controllers: [PeopleController, FirstRunController, ShopController, StaffController],
  providers: [PeopleService, LoginLimit, SecondFactorService],
  exports: [PeopleService, LoginLimit],
})
export class PeopleModule {}
