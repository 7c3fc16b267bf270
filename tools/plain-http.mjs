// A client of one connection that takes hardly any time of its own, to measure what the server takes.
import { connect } from 'node:net';

const HEAD_END = '\r\n\r\n';

/** Posts JSON, one request after the other, and hands back the status; only answers that tell their length are read. */
export function plainClient(base, headers) {
  const { hostname, port, host } = new URL(base);
  const socket = connect(Number(port), hostname).setNoDelay(true).setEncoding('latin1');
  const always = Object.entries({ ...headers, host, 'content-type': 'application/json' }).map(([name, value]) => `${name}: ${value}\r\n`);
  let tell;
  let read = '';
  socket.on('data', (chunk) => {
    read += chunk;
    const end = read.indexOf(HEAD_END);
    const length = end < 0 ? undefined : /\r\ncontent-length: (\d+)/iu.exec(read.slice(0, end))?.[1];
    if (length === undefined || read.length < end + HEAD_END.length + Number(length)) return;
    const status = Number(read.split(' ', 2)[1]);
    read = '';
    tell(status);
  });
  return {
    post: (path, body) =>
      new Promise((resolve) => {
        tell = resolve;
        const text = JSON.stringify(body);
        socket.write(`POST ${path} HTTP/1.1\r\n${always.join('')}content-length: ${Buffer.byteLength(text)}${HEAD_END}${text}`);
      }),
    end: () => socket.destroy(),
  };
}
