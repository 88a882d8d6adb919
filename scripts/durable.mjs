/* Small files that must outlive a power cut: written under another name, through to the disk, then renamed. */
import { randomUUID } from 'node:crypto';
import fs from 'node:fs';
import path from 'node:path';

/** @param {string} file @param {string} text @param {number} [mode] */
export function writeDurably(file, text, mode = 0o600) {
  const unfinished = `${file}.${randomUUID()}.part`;
  try {
    fs.writeFileSync(unfinished, text, { mode, flag: 'wx', flush: true });
    fs.renameSync(unfinished, file);
  } catch (error) {
    fs.rmSync(unfinished, { force: true });
    throw error;
  }
  const folder = fs.openSync(path.dirname(file), 'r');
  try {
    fs.fsyncSync(folder);
  } finally {
    fs.closeSync(folder);
  }
}
