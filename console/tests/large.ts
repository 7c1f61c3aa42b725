/** How many accounts the large product needs, and on how many hosts. */
export const large = { accounts: 100, hosts: 200 };

const numbered = (word: string, count: number) =>
  Array.from({ length: count }, (_, i) => `${word}${String(i + 1).padStart(3, '0')}`);

/** A product of a hundred accounts, each of which needs two rights on every host of an estate of two hundred. */
export const largeDocuments = {
  sheets: [
    'sheet: 1',
    'product: manyvats',
    'release: "1.0"',
    'title: Manyvats',
    'source: made up for the tests',
    'places:',
    '  nodes: { kind: host, count: 1 or more }',
    'accounts:',
    ...numbered('vat', large.accounts).flatMap((key) => [
      `  ${key}:`,
      `    purpose: Stirs ${key}`,
      '    works-as: service',
      '    needs:',
      '      - { logon: service, on: nodes, why: runs its service }',
      '      - { local-group: Performance Monitor Users, on: nodes, why: reads the counters }',
    ]),
  ].join('\n'),
  estates: [
    'estate: 1',
    'name: works',
    'title: The works of Fennmoor Dairy',
    'domain: { dns: works.fennmoor.example, short: WORKS }',
    'directory: { reach: none }',
    'branches:',
    '  service-accounts: OU=Service Accounts,DC=works,DC=fennmoor,DC=example',
    '  application-groups: OU=Application Groups,DC=works,DC=fennmoor,DC=example',
    'naming:',
    '  accounts: svc-{product}-{account}',
    '  groups: app-{product}-{group}',
    '  description: "{purpose}"',
    '  accounts-in: service-accounts',
    '  groups-in: application-groups',
    'hosts:',
    ...numbered('fw-node', large.hosts).map((host) => `  ${host}: {}`),
  ].join('\n'),
  installs: [
    'install: 1',
    'name: manyvats-works',
    'product: manyvats',
    'release: "1.0"',
    'estate: works',
    'stage: planned',
    'places:',
    `  nodes: [${numbered('fw-node', large.hosts).join(', ')}]`,
  ].join('\n'),
};
