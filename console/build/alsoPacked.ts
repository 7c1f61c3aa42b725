import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { brotliCompressSync, gzipSync } from 'node:zlib';
import type { Plugin } from 'vite';

/** Files that become smaller; pictures are packed already. */
const packable = /\.(js|css|svg|html)$/;

/** How a browser takes a file [RFC 9110, 8.4.1], by what the packed one ends with. */
const packings = {
  br: (data: Buffer) => brotliCompressSync(data),
  gz: (data: Buffer) => gzipSync(data, { level: 9 }),
};

/** Puts beside each file of the build the same as small as it can be made: the service sends that. */
export function alsoPacked(): Plugin {
  let folder = '';
  return {
    name: 'also-packed',
    apply: 'build',
    configResolved: (config) => {
      folder = join(config.root, config.build.outDir);
    },
    closeBundle: () => {
      for (const file of readdirSync(folder, { recursive: true, encoding: 'utf8' }).filter((f) => packable.test(f)))
        for (const [ending, pack] of Object.entries(packings))
          writeFileSync(join(folder, `${file}.${ending}`), pack(readFileSync(join(folder, file))));
    },
  };
}
