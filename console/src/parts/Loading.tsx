import { Loader, type MantineSpacing } from '@mantine/core';

/** That something is on its way, for eyes and for screen readers: a name alone, without a role, is read by none of them. */
export function Loading({ mt }: { mt?: MantineSpacing }) {
  return <Loader role="status" aria-label="Loading" mt={mt} />;
}
