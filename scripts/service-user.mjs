/*
 * Neither the database nor the server runs as root. Started by root, they run as whoever the project belongs to, or, where
 * that is root too, as Debian's postgres user. Under a folder that only root may enter they may read past its door and no
 * more: one capability, CAP_DAC_READ_SEARCH (capabilities(7)).
 */
import { spawnSync } from 'node:child_process';
import fs from 'node:fs';

/**
 * @typedef {object} ServiceUser
 * @property {number | null} uid - null: whoever starts it
 * @property {number} gid
 * @property {boolean} passesDoors - needs the capability to reach the project
 */

/** @param {string} root - the project's folder @returns {ServiceUser} */
export function serviceUser(root) {
  if (process.getuid() !== 0) return { uid: null, gid: process.getgid(), passesDoors: false };
  const owner = fs.statSync(root);
  const ids = owner.uid === 0 ? idsOf('postgres') : { uid: owner.uid, gid: owner.gid };
  const user = { ...ids, passesDoors: false };
  // A clone made with a narrow umask is as closed as a folder under root's own.
  const reach = spawnSync('/bin/sh', ['-c', 'cd "$0" && cat package.json && ls scripts server', root], {
    uid: ids.uid,
    gid: ids.gid,
    cwd: '/',
    stdio: 'ignore',
  });
  return { ...user, passesDoors: reach.status !== 0 };
}

function idsOf(name) {
  const line = fs
    .readFileSync('/etc/passwd', 'utf8')
    .split('\n')
    .find((entry) => entry.startsWith(`${name}:`));
  if (!line) throw new Error(`There is no user "${name}" to run the database and the server as.`);
  const [, , uid, gid] = line.split(':');
  return { uid: Number(uid), gid: Number(gid) };
}

/**
 * A command as the service user runs it.
 *
 * @param {ServiceUser} user
 * @param {string} command
 * @param {readonly string[]} args
 * @returns {[string, string[], { uid?: number, gid?: number, cwd: string }]}
 */
export function asServiceUser(user, command, args) {
  if (user.uid === null) return [command, [...args], { cwd: '/' }];
  if (!user.passesDoors) return [command, [...args], { uid: user.uid, gid: user.gid, cwd: '/' }];
  const only = '+dac_read_search';
  return [
    'setpriv',
    [
      `--reuid=${user.uid}`,
      `--regid=${user.gid}`,
      '--clear-groups',
      '--no-new-privs',
      `--inh-caps=-all,${only}`,
      `--ambient-caps=-all,${only}`,
      `--bounding-set=-all,${only}`,
      '--',
      command,
      ...args,
    ],
    { cwd: '/' },
  ];
}

/** Gives a folder and all in it to the service user. @param {ServiceUser} user @param {string} folder */
export function giveTo(user, folder) {
  if (user.uid === null) return;
  const visit = (file) => {
    const stat = fs.lstatSync(file);
    if (stat.uid !== user.uid || stat.gid !== user.gid) fs.lchownSync(file, user.uid, user.gid);
    if (stat.isDirectory()) for (const entry of fs.readdirSync(file)) visit(`${file}/${entry}`);
  };
  visit(folder);
}
