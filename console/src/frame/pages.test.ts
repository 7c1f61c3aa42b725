import { expect, it } from 'vitest';
import { placeOf } from './pages';

it.each([
  ['/', '/'],
  ['/installs', '/installs'],
  ['/installs/thermograph-dataroom/accounts/poller', '/installs'],
  ['/estates/fennmoor', '/estates'],
  ['/estates/fennmoor/hosts/fm-temp01', '/hosts'],
  ['/estates/fennmoor/instances/fm-sql01', '/instances'],
  ['/estates/fennmoor/policies/%7B7C2E%7D', '/policies'],
  ['/passwords/fennmoor/svc-archive', '/passwords'],
  ['/new-install', '/new-install'],
  ['/find', undefined],
  ['/installsx', undefined],
])('%s is found at %s', (pathname, place) => expect(placeOf(pathname)).toBe(place));
