// The least that SQL takes to reach a page: plain http, prepared statements, rows as JSON, and nothing of Jubb. Forked by what measures.
import { createServer } from 'node:http';
import pg from 'pg';

process.once('message', ({ url, statements }) => {
  const pool = new pg.Pool({ connectionString: url, max: 4 });
  const server = createServer((request, response) => {
    const at = Number(request.url.split('/').at(-1));
    const { text, values } = statements[at];
    pool.query({ name: `bare-${at}`, text, values }).then(
      ({ rows }) => {
        const body = JSON.stringify(rows);
        response.writeHead(200, { 'content-type': 'application/json', 'content-length': Buffer.byteLength(body) }).end(body);
      },
      ({ message }) => response.writeHead(500).end(JSON.stringify({ message })),
    );
  });
  server.listen(0, '127.0.0.1', () => process.send({ port: server.address().port }));
});
process.on('disconnect', () => process.exit());
