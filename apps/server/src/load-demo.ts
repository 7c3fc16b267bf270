import { NestFactory } from '@nestjs/core';
import { AppModule } from './app.module.js';
import { readConfig } from './config.js';
import { makeDataSource, migrate } from './database/data-source.js';
import { Demo } from './demo/demo.js';
import { demoSize } from './demo/demo-size.js';

/**
 * `node dist/load-demo.js [small]`: brings a database that holds nobody yet up to this version, and puts the demo into it. A process of its own:
 * two years of a shop are no request of somebody who waits, and the limits of those do not end it.
 */

// Whoever asked for it has ended.
process.on('disconnect', () => process.exit());

const config = readConfig(process.env);
try {
  await migrate(config.databaseUrl);
  const dataSource = await makeDataSource(config.databaseUrl, true).initialize();
  const app = await NestFactory.createApplicationContext(AppModule.over(config, dataSource), { logger: ['error', 'warn'] });
  await app.get(Demo).loadIfEmpty(config.demoPictures, demoSize(process.argv[2]), (words) => process.stdout.write(`demo: ${words}\n`));
  await app.close();
  // The line to whoever asked for it would hold it up.
  process.disconnect?.();
} catch (error) {
  const { message, stack } = error as Error;
  // Whoever asks for the log finds where it came from; the last line is what the command says.
  process.stderr.write(`${stack}\n${message}\n`);
  process.exit(1);
}
