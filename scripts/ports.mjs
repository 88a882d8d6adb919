import net from 'node:net';

/** Listens where it may. @returns the server, or null where somebody else listens there */
const tryListening = (port, host) =>
  new Promise((resolve, reject) => {
    const probe = net.createServer();
    probe.once('error', (error) => (port === 0 ? reject(error) : resolve(null)));
    probe.listen(port, host, () => resolve(probe));
  });

const closed = (server) => new Promise((resolve) => server.close(resolve));

/** Ports of this machine that nobody listens on, each another one. */
export async function freePorts(count) {
  const probes = await Promise.all(Array.from({ length: count }, () => tryListening(0, '127.0.0.1')));
  const ports = probes.map((probe) => probe.address().port);
  await Promise.all(probes.map(closed));
  return ports;
}

/** Whether one may listen there. */
export async function isPortFree(port, host = '127.0.0.1') {
  const probe = await tryListening(port, host);
  if (probe) await closed(probe);
  return probe !== null;
}
