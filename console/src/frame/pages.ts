import { linkOptions } from '@tanstack/react-router';

/** A page that the navigation leads to. */
export interface PageLink {
  label: string;
  link: { to: string };
}

/** The map of pages: each answers a question; groups are in the order of the work. */
export const groups: { name: string; pages: PageLink[] }[] = [
  { name: '', pages: [{ label: 'What needs you', link: linkOptions({ to: '/' }) }] },
  {
    name: 'Work',
    pages: [
      { label: 'Installs', link: linkOptions({ to: '/installs' }) },
      { label: 'Runs', link: linkOptions({ to: '/runs' }) },
    ],
  },
  {
    name: 'Estate',
    pages: [
      { label: 'Accounts', link: linkOptions({ to: '/accounts' }) },
      { label: 'Groups', link: linkOptions({ to: '/groups' }) },
      { label: 'Hosts', link: linkOptions({ to: '/hosts' }) },
      { label: 'Instances', link: linkOptions({ to: '/instances' }) },
      { label: 'OUs', link: linkOptions({ to: '/ous' }) },
      { label: 'Policies', link: linkOptions({ to: '/policies' }) },
      { label: 'Trace', link: linkOptions({ to: '/trace' }) },
      { label: 'Object', link: linkOptions({ to: '/object' }) },
      { label: 'Filter', link: linkOptions({ to: '/filter' }) },
    ],
  },
  {
    name: 'Keep',
    pages: [
      { label: 'Passwords', link: linkOptions({ to: '/passwords' }) },
      { label: 'Calendar', link: linkOptions({ to: '/calendar' }) },
      { label: 'Reviews', link: linkOptions({ to: '/reviews' }) },
    ],
  },
  {
    name: 'Library',
    pages: [
      { label: 'Sheets', link: linkOptions({ to: '/sheets' }) },
      { label: 'Estates', link: linkOptions({ to: '/estates' }) },
      { label: 'New install', link: linkOptions({ to: '/new-install' }) },
      { label: 'New sheet', link: linkOptions({ to: '/new-sheet' }) },
      { label: 'Adopt', link: linkOptions({ to: '/adoptions' }) },
    ],
  },
  {
    name: 'Organization',
    pages: [
      { label: 'Log', link: linkOptions({ to: '/log' }) },
      { label: 'Secrets', link: linkOptions({ to: '/secrets' }) },
      { label: 'Tokens, sessions', link: linkOptions({ to: '/tokens' }) },
      { label: 'Notifications', link: linkOptions({ to: '/notifications' }) },
      { label: 'This service', link: linkOptions({ to: '/service' }) },
    ],
  },
];

/** The pages of which the name contains what is looked for. */
export function pagesNamed(words: string): PageLink[] {
  const asked = words.trim().toLowerCase();
  if (asked === '') return [];
  return groups.flatMap((g) => g.pages).filter((p) => p.label.toLowerCase().includes(asked));
}

/** The kinds of things of an estate whose pages lie below it, and are found through a list of their own. */
const ofEstate = /^\/estates\/[^/]+\/(hosts|instances|policies)\//;

/** Where in the map a page is: the link that leads to it, or to the list it is found in. */
export function placeOf(pathname: string): string | undefined {
  const list = ofEstate.exec(pathname)?.[1];
  if (list) return `/${list}`;
  const links = groups.flatMap((g) => g.pages).map((p) => p.link.to);
  return links.find((to) => pathname === to || (to !== '/' && pathname.startsWith(`${to}/`)));
}
