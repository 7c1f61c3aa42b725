import type { Plugin, Rolldown } from 'vite';

/** Large, and only some pages need it: each stays in the files of those that ask for it. */
const large = /node_modules\/(@xyflow|@dagrejs|d3-|yaml|codemirror|@codemirror|@lezer|recharts)/;

/**
 * How the console is cut into files: what the first page needs is one file, what most pages share is another, and each page has
 * its own. On a slow line the number of questions and answers counts as much as their size: forty small files take seven rounds.
 */
export const chunks: Exclude<Rolldown.OutputOptions['codeSplitting'], boolean | undefined> = {
  groups: [
    { name: 'first', tags: ['$initial'], priority: 2 },
    { name: 'shared', test: (id: string) => !large.test(id), minShareCount: 4, priority: 1 },
  ],
};

/** Lets a browser fetch what most pages share along with the first file, and not only after it has read that. */
export function sharedSoon(): Plugin {
  return {
    name: 'shared-soon',
    apply: 'build',
    transformIndexHtml: {
      order: 'post',
      handler: (_, { bundle }) =>
        Object.values(bundle ?? {})
          .filter((file) => file.type === 'chunk' && file.name === 'shared')
          .map(({ fileName }) => ({
            tag: 'link',
            attrs: { rel: 'modulepreload', crossorigin: true, href: `/${fileName}` },
            injectTo: 'head',
          })),
    },
  };
}
