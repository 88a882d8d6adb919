import net from 'node:net';

/** Ports of this machine that nobody listens on, each another one. */
export async function freePorts(count: number): Promise<number[]> {
  const probes = await Promise.all(
    Array.from(
      { length: count },
      () =>
        new Promise<net.Server>((resolve, reject) => {
          const probe = net.createServer().once('error', reject);
          probe.listen(0, '127.0.0.1', () => resolve(probe));
        }),
    ),
  );
  const ports = probes.map((probe) => (probe.address() as net.AddressInfo).port);
  await Promise.all(probes.map((probe) => new Promise((resolve) => probe.close(resolve))));
  return ports;
}

/** Whether somebody listens on a port of this machine. */
export function isTaken(port: number): Promise<boolean> {
  return new Promise((resolve) => {
    const socket = net.connect(port, '127.0.0.1');
    socket.once('connect', () => resolve(true)).once('error', () => resolve(false));
    socket.once('connect', () => socket.destroy());
  });
}
