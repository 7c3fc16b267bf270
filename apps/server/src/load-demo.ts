import { NestFactory } from '@nestjs/core';
import { AppModule } from './app.module.js';
import { readConfig } from './config.js';
import { makeDataSource } from './database/data-source.js';
import { Demo, demoSize } from './demo/demo.js';

/**
 * `node dist/load-demo.js [small]`: puts the demo into a database that is migrated and holds nobody yet. A process of its own:
 * two years of a shop are no request of somebody who waits, and the limits of those do not end it.
 */

// Whoever asked for it has ended.
process.on('disconnect', () => process.exit());

const config = readConfig(process.env);
try {
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
