import { createHash } from 'node:crypto';
import { copyFileSync, existsSync, mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { brotliCompressSync, gzipSync } from 'node:zlib';
import { dist, root } from './paths.mjs';
import { run, say } from './run.mjs';
import { signFont } from './sign-font.mjs';

const sources = ['packages', 'apps', 'package-lock.json', 'tsconfig.base.json', 'scripts/lib/build.mjs', 'scripts/lib/sign-font.mjs'];
const skipped = new Set(['node_modules', 'dist', '.angular', 'generated']);

function* filesOf(path) {
  let entries;
  try {
    entries = readdirSync(path, { withFileTypes: true });
  } catch {
    yield path;
    return;
  }
  for (const entry of entries.sort((a, b) => (a.name < b.name ? -1 : 1))) {
    if (skipped.has(entry.name)) continue;
    if (entry.isDirectory()) yield* filesOf(join(path, entry.name));
    else yield join(path, entry.name);
  }
}

function fingerprint() {
  const hash = createHash('sha256');
  for (const source of sources) {
    for (const file of filesOf(join(root, source))) {
      if (!/\.spec(-support)?\.ts$/.test(file)) hash.update(file.slice(root.length)).update(readFileSync(file));
    }
  }
  return hash.digest('hex');
}

/** Builds web application and server where the sources changed since the last build. */
export async function ensureBuilt({ always = false } = {}) {
  const stamp = join(dist, '.stamp');
  const current = fingerprint();
  if (!always && existsSync(stamp) && readFileSync(stamp, 'utf8') === current) return;
  say('Building the application (under a minute) …');
  await buildServer();
  await writePaperFonts();
  await buildWorklets();
  await run('npx', ['ng', 'build'], { cwd: join(root, 'apps', 'web'), env: { NG_CLI_ANALYTICS: 'false', NG_BUILD_OPTIMIZE_CHUNKS: '1' } });
  compressWebFiles();
  mkdirSync(dist, { recursive: true });
  writeFileSync(stamp, current);
}

/** Bundles the server; its packages stay outside, the workspace's own sources come in. */
async function buildServer() {
  const { build } = await import('esbuild');
  const { dependencies } = JSON.parse(readFileSync(join(root, 'apps/server/package.json'), 'utf8'));
  await build({
    entryPoints: {
      main: join(root, 'apps/server/src/main.ts'),
      reader: join(root, 'apps/server/src/tunes/reader.worker.ts'),
      archive: join(root, 'apps/server/src/archive/archive.worker.ts'),
      'long-take': join(root, 'apps/server/src/takes/long-take.worker.ts'),
    },
    outdir: join(dist, 'server'),
    bundle: true,
    platform: 'node',
    target: 'node20',
    format: 'esm',
    sourcemap: true,
    logLevel: 'warning',
    tsconfig: join(root, 'apps/server/tsconfig.json'),
    external: Object.keys(dependencies).filter((name) => !name.startsWith('@zelpit/')),
  });
}

/** What makes and takes sound runs in a thread that takes single files and no bundles of the application. */
async function buildWorklets() {
  const { build } = await import('esbuild');
  await build({
    entryPoints: [join(root, 'apps/web/src/worklets/recorder.worklet.ts')],
    outfile: join(root, 'apps/web/generated/worklets/recorder.js'),
    bundle: true,
    minify: true,
    format: 'esm',
    target: 'es2022',
    logLevel: 'warning',
  });
}

/** The PDF needs the fonts as TrueType; the package ships them compressed for the web only. */
export async function writePaperFonts() {
  const { decompress } = await import('wawoff2');
  const folder = join(root, 'apps/web/generated/fonts');
  mkdirSync(folder, { recursive: true });
  copyFileSync(join(root, 'node_modules/@fontsource/gabarito/LICENSE'), join(folder, 'OFL.txt'));
  writeFileSync(join(folder, 'zelpit-signs.ttf'), signFont());
  for (const subset of ['latin', 'latin-ext']) {
    for (const weight of [500, 700, 800]) {
      const packed = readFileSync(join(root, `node_modules/@fontsource/gabarito/files/gabarito-${subset}-${weight}-normal.woff2`));
      writeFileSync(join(folder, `gabarito-${subset}-${weight}.ttf`), await decompress(packed));
    }
  }
}

/** Compressed once here, so that the server need not do it for every request. */
function compressWebFiles() {
  for (const file of filesOf(join(dist, 'web'))) {
    if (!/\.(js|css|svg|ttf)$/.test(file)) continue;
    const content = readFileSync(file);
    writeFileSync(`${file}.br`, brotliCompressSync(content));
    writeFileSync(`${file}.gz`, gzipSync(content, { level: 9 }));
  }
}
